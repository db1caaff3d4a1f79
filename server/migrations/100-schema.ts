// Long because it is the whole database in one place, table by table, in the order of the work.
import type { Knex } from 'knex';

/** The first schema: everything as it was when the steps that led here were folded into one. What comes later has steps of its own. */
export async function up(knex: Knex): Promise<void> {
  await knex.raw(SCHEMA);
}

/**
 * Never goes back: before it there is nothing.
 *
 * @throws Error always
 */
export function down(): Promise<void> {
  throw new Error('The first schema is not taken back: with it everything would go.');
}

const SCHEMA = String.raw`
create extension if not exists pg_trgm;

-- People, the shop and who is signed in

-- everybody of the shop, and strangers whose names came with a record
create table people (
  id uuid default gen_random_uuid() primary key,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 60)),
  role text not null check (role in ('bench', 'lead', 'viewer')),
  passphrase_hash text not null,
  active boolean default true not null,
  version integer default 1 not null,
  created_at timestamptz default now() not null,
  email text default '' not null check (length(email) <= 120),
  looked_at timestamptz
);

-- what was changed of people, and by whom
create table people_changes (
  id uuid default gen_random_uuid() primary key,
  person_id uuid not null,
  before jsonb,
  after jsonb not null,
  passphrase_set boolean not null,
  by uuid,
  at timestamptz default now() not null
);

-- one row: the shop itself
create table shop (
  singleton boolean default true primary key check (singleton),
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 80)),
  unit text not null check (unit in ('mm', 'thou')),
  zone text not null,
  version integer default 1 not null,
  gauges_on_network boolean default false not null,
  proves_again text default 'disturbed' not null check (proves_again in ('disturbed', 'cylinder', 'head', 'every-point')),
  allow_over jsonb default '[]' not null,
  quiet_from time default '19:00' not null,
  quiet_to time default '07:00' not null,
  remind_days integer default 14 not null check ((remind_days >= 0) and (remind_days <= 120)),
  meter_feed text default '' not null check (length(meter_feed) <= 80),
  locked_stands boolean default false not null,
  address text default '' not null check (length(address) <= 120)
);

-- who is signed in; the session’s id itself is nowhere
create table sessions (
  sid text primary key,
  person_id uuid,
  data jsonb not null,
  expires_at timestamptz not null
);

-- devices on which somebody signed in before
create table known_devices (
  mark text primary key,
  person_id uuid not null,
  last_at timestamptz default now() not null
);

-- wrong passphrases, by person, device, address or mark of a name
create table sign_in_tries (
  subject text primary key,
  misses integer not null check (misses >= 0),
  last_at timestamptz default now() not null,
  pending integer default 0 not null check (pending >= 0),
  pending_at timestamptz
);

-- private addresses of calendars, by their hash
create table calendar_feeds (
  id uuid default gen_random_uuid() primary key,
  person_id uuid not null,
  token_hash bytea not null unique,
  made_at timestamptz default now() not null,
  withdrawn_at timestamptz
);

-- Writes: each is done once, and what a device is asked about

-- the key of every write, and what a retry is answered with
create table writes (
  key uuid primary key,
  person_id uuid,
  route text not null,
  fingerprint text not null,
  status integer not null,
  answer jsonb,
  at timestamptz default now() not null
);

-- one row that the server writes now and then, to know that it can
create table write_tries (
  only_one boolean default true primary key check (only_one),
  at timestamptz default now() not null
);

-- writes whose time a device has to be asked about
create table time_questions (
  key uuid primary key,
  person_id uuid not null,
  room text not null,
  subject uuid not null,
  said text not null,
  asked_at timestamptz default now() not null
);

-- What is measured with

-- blade sets, gauges, wrenches; lengths in tenths of a micrometre, as everywhere
create table instruments (
  id uuid default gen_random_uuid() primary key,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 60)),
  kind text not null check (kind in ('blade-set', 'indicator', 'micrometer', 'caliper', 'digital-gauge', 'torque-wrench')),
  unit text not null check (unit in ('mm', 'in')),
  uncertainty integer not null,
  angled boolean default false not null,
  thicknesses integer[] default '{}' not null,
  missing integer[] default '{}' not null,
  address text,
  check_due date,
  active boolean default true not null,
  version integer default 1 not null,
  worn integer[] default '{}' not null,
  measured jsonb default '[]' not null,
  torque_from numeric(6,2),
  torque_to numeric(6,2),
  constraint instruments_check check ((kind = 'blade-set') = (cardinality(thicknesses) > 0)),
  constraint instruments_check1 check (missing <@ thicknesses),
  constraint instruments_check3 check (worn <@ thicknesses),
  constraint instruments_reached_check check (((kind = 'digital-gauge') or (address is null)) and ((kind <> 'digital-gauge') or (address is not null) or (not active))),
  constraint instruments_torque_check check (((kind = 'torque-wrench') = ((torque_from is not null) and (torque_to is not null))) and ((torque_from is null) or ((torque_from > 0) and (torque_from < torque_to)))),
  constraint instruments_uncertainty_check check ((uncertainty >= 0) and (uncertainty <= case kind when 'torque-wrench' then 200000 else 10000 end))
);

-- checks against a block or a tester
create table instrument_checks (
  id uuid default gen_random_uuid() primary key,
  instrument_id uuid not null,
  block integer not null check (block > 0),
  found integer not null check (found >= 0),
  passed boolean not null,
  note text default '' not null,
  next_due date not null,
  by uuid not null,
  at timestamptz default now() not null
);

-- places with their own blade set
create table benches (
  id uuid default gen_random_uuid() primary key,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 60)),
  blade_set_id uuid,
  max_stack integer default 2 not null check ((max_stack >= 1) and (max_stack <= 4)),
  version integer default 1 not null
);

-- which device a gauge speaks to now
create table gauge_holds (
  instrument_id uuid primary key,
  device uuid not null,
  person_id uuid not null,
  until timestamptz not null
);

-- Spec sheets: nothing of a published revision ever changes

-- a pattern of engine, by maker and name
create table sheets (
  id uuid default gen_random_uuid() primary key,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 80)),
  maker text not null check ((length(trim(both from maker)) >= 1) and (length(trim(both from maker)) <= 60)),
  created_at timestamptz default now() not null,
  constraint sheets_maker_name_key unique (maker, name)
);

-- what a sheet says, revision by revision
create table sheet_revisions (
  id uuid default gen_random_uuid() primary key,
  sheet_id uuid not null,
  number integer not null check (number >= 1),
  status text not null check (status in ('draft', 'published', 'foreign')),
  pattern jsonb not null,
  condition text not null check (condition in ('cold', 'hot')),
  temperature jsonb,
  usage_unit text not null check (usage_unit in ('hours', 'km', 'starts', 'events')),
  recheck_plan jsonb not null check (jsonb_array_length(recheck_plan) >= 1),
  source jsonb not null check (length(trim(both from (source ->> 'manual'))) >= 1),
  notes text default '' not null,
  entered_by uuid not null,
  checked_by uuid,
  created_at timestamptz default now() not null,
  published_at timestamptz,
  version integer default 1 not null,
  wear_limits jsonb default '[]' not null,
  torques jsonb default '[]' not null,
  writers uuid[] default '{}' not null,
  format smallint default 1 not null check (format >= 1),
  wanted jsonb default '[]' not null,
  piece_charts jsonb default '[]' not null,
  assembly jsonb default '[]' not null,
  run_in jsonb default '{"retorque": false, "heatCycles": 0}'::jsonb not null,
  constraint sheet_revisions_check1 check ((status = 'draft') or (checked_by is not null)),
  constraint sheet_revisions_published_at_said check (((status <> 'draft') or (published_at is null)) and ((status <> 'published') or (published_at is not null))),
  constraint sheet_revisions_sheet_id_number_key unique (sheet_id, number)
);

-- limits of a clearance, by role
create table sheet_limits (
  revision_id uuid not null,
  role text not null check (role in ('intake', 'exhaust', 'intake-closing', 'exhaust-closing', 'brake')),
  min_tenths integer not null check (min_tenths >= 0),
  max_tenths integer not null,
  as_written text default '' not null,
  allow_over_tenths integer check ((allow_over_tenths >= 0) and (allow_over_tenths <= 1000)),
  allow_over_why text default '' not null,
  constraint sheet_limits_check check (min_tenths < max_tenths),
  constraint sheet_limits_check1 check ((coalesce(allow_over_tenths, 0) = 0) or ((length(trim(both from allow_over_why)) >= 1) and (length(trim(both from allow_over_why)) <= 120))),
  primary key (revision_id, role)
);

-- the points that a revision’s pattern has
create table lash_points (
  revision_id uuid not null,
  key text not null,
  ordinal integer not null,
  cylinder text not null,
  role text not null,
  primary key (revision_id, key)
);

-- what the shop learned of a pattern
create table know_how (
  id uuid primary key,
  sheet_id uuid not null,
  build_id uuid not null,
  stage text not null check (stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  text text not null check ((length(trim(both from text)) >= 1) and (length(trim(both from text)) <= 300)),
  dropped boolean default false not null,
  by uuid not null,
  at timestamptz not null,
  version integer default 1 not null
);

-- Engines, their owners and the log of their running

-- who an engine belongs to, and whether they are written to
create table owners (
  id uuid default gen_random_uuid() primary key,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 80)),
  email text default '' not null check (length(email) <= 120),
  tells text default 'mail' not null check (tells in ('mail', 'peace')),
  note text default '' not null,
  version integer default 1 not null,
  created_at timestamptz default now() not null
);

-- every engine; what it ran in all is generated
create table engines (
  id uuid default gen_random_uuid() primary key,
  sheet_id uuid not null,
  name text not null check ((length(trim(both from name)) >= 1) and (length(trim(both from name)) <= 60)),
  serial text default '' not null,
  owner text default '' not null,
  duty text default '' not null,
  usage_unit text not null check (usage_unit in ('hours', 'km', 'starts', 'events')),
  usage numeric(9,1) default 0 not null check (usage >= 0),
  usage_at timestamptz default now() not null,
  version integer default 1 not null,
  created_at timestamptz default now() not null,
  ran_before numeric(12,1) default 0 not null check (ran_before >= 0),
  meter_from numeric(9,1) default 0 not null check (meter_from >= 0),
  running numeric(12,1) generated always as (((ran_before + usage) - meter_from)) stored not null,
  sought text default '' not null,
  put_away_at timestamptz,
  put_away_by uuid,
  put_away_why text,
  owner_id uuid,
  place text default '' not null,
  heat_cycles integer default 0 not null check (heat_cycles >= 0),
  constraint engines_check check (usage >= meter_from),
  constraint engines_check1 check (((put_away_at is null) = (put_away_by is null)) and ((put_away_at is null) = (put_away_why is null)))
);

-- plans of its own that an engine was given; the newest governs
create table engine_plans (
  id uuid primary key,
  engine_id uuid not null,
  plan jsonb,
  why text not null check ((length(trim(both from why)) >= 1) and (length(trim(both from why)) <= 200)),
  by uuid not null,
  at timestamptz default now() not null
);

-- the log of running
create table usages (
  id uuid default gen_random_uuid() primary key,
  engine_id uuid not null,
  usage numeric(9,1) not null check (usage >= 0),
  reason text default '' not null,
  read_at timestamptz default now() not null,
  by uuid not null,
  running numeric(12,1) not null,
  new_meter boolean default false not null,
  heat_cycles integer check (heat_cycles >= 0),
  source text default 'hand' not null check (source in ('hand', 'csv', 'feed')),
  old_stopped_at numeric(9,1),
  meter_from numeric(9,1),
  struck_at timestamptz,
  struck_by uuid,
  struck_why text default '' not null,
  constraint usages_new_meter_said check ((new_meter = (meter_from is not null)) and (new_meter = (old_stopped_at is not null))),
  constraint usages_struck_said check ((struck_at is null) = (struck_by is null))
);

-- lines of the meter feed, and what became of each
create table meter_lines (
  id uuid default gen_random_uuid() primary key,
  serial text not null,
  at timestamptz not null,
  usage numeric(9,1),
  heat_cycles integer,
  engine_id uuid,
  state text not null check (state in ('taken', 'asked', 'left')),
  why text default '' not null,
  answered_by uuid,
  line text default '' not null check (length(line) <= 500),
  constraint meter_lines_read check ((line = '') = (usage is not null)),
  constraint meter_lines_serial_at_key unique (serial, at)
);

-- Builds, and what is done at their stages

-- a rebuild, or an engine set again, from taking in to running
create table builds (
  id uuid default gen_random_uuid() primary key,
  engine_id uuid not null,
  revision_id uuid not null,
  number integer not null check (number >= 1),
  stage text default 'take-in' not null check (stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  stage_since timestamptz default now() not null,
  complaint text not null check ((length(trim(both from complaint)) >= 1) and (length(trim(both from complaint)) <= 300)),
  aim text default 'middle' not null check (aim in ('middle', 'exhaust-loose', 'loose-end', 'tight-end', 'own')),
  version integer default 1 not null,
  opened_at timestamptz default now() not null,
  opened_by uuid not null,
  closed_at timestamptz,
  seq integer default 0 not null,
  carried_round uuid,
  proves_again text default 'disturbed' not null check (proves_again in ('disturbed', 'cylinder', 'head', 'every-point')),
  abandoned_at timestamptz,
  abandoned_by uuid,
  abandoned_why text,
  own_aims jsonb,
  aim_by uuid,
  allow_over jsonb default '[]' not null,
  locked_stands boolean default false not null,
  constraint builds_check check (((abandoned_at is null) = (abandoned_by is null)) and ((abandoned_at is null) = (abandoned_why is null))),
  constraint builds_check1 check ((abandoned_at is null) or (closed_at is not null)),
  constraint builds_own_aims_said check ((aim <> 'own') or (own_aims is not null)),
  constraint builds_engine_id_number_key unique (engine_id, number),
  constraint builds_id_revision_id_key unique (id, revision_id)
);

-- every move from one stage to another
create table stage_moves (
  id uuid default gen_random_uuid() primary key,
  build_id uuid not null,
  from_stage text not null check (from_stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  to_stage text not null check (to_stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  by uuid not null,
  at timestamptz default now() not null
);

-- each check as it was ticked last, with when and by whom before
create table stage_ticks (
  build_id uuid not null,
  stage text not null check (stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  check_key text not null,
  by uuid not null,
  at timestamptz default now() not null,
  done boolean default true not null,
  earlier timestamptz[] default '{}' not null,
  earlier_by uuid[] default '{}' not null,
  constraint stage_ticks_check check (cardinality(earlier_by) <= cardinality(earlier)),
  primary key (build_id, stage, check_key)
);

-- notes, by stage
create table stage_notes (
  id uuid default gen_random_uuid() primary key,
  build_id uuid not null,
  stage text not null check (stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  text text not null check ((length(trim(both from text)) >= 1) and (length(trim(both from text)) <= 1000)),
  by uuid not null,
  at timestamptz default now() not null
);

-- a lead’s signature, once a build
create table sign_offs (
  build_id uuid primary key,
  by uuid not null,
  at timestamptz default now() not null,
  usage numeric(12,1) not null check (usage >= 0),
  statement text default '' not null,
  accepted text[] default '{}' not null,
  seq integer
);

-- lines of one hand at one moment: wear, head work, counts, how it ran
create table build_entries (
  id uuid primary key,
  build_id uuid not null,
  room text not null check (room in ('wear', 'headwork', 'ledger', 'ran')),
  lines jsonb not null check ((jsonb_typeof(lines) = 'array') and (jsonb_array_length(lines) >= 1)),
  format smallint default 1 not null check (format >= 1),
  by uuid not null,
  at timestamptz not null,
  came_at timestamptz default now() not null
);

-- pictures of a build
create table photographs (
  id uuid primary key,
  build_id uuid not null,
  stage text not null check (stage in ('take-in', 'open-up', 'as-found', 'wear', 'head-work', 'set', 'prove', 'close', 'run-in')),
  about text not null,
  note text not null,
  width integer not null check ((width >= 1) and (width <= 4000)),
  height integer not null check ((height >= 1) and (height <= 4000)),
  picture bytea not null check ((length(picture) >= 1) and (length(picture) <= 8000000)),
  dropped_at timestamptz,
  dropped_by uuid,
  by uuid not null,
  at timestamptz not null,
  shows text default '' not null,
  constraint photographs_check check ((dropped_at is null) = (dropped_by is null))
);

-- Rounds and their readings, and how each point is set

-- one going over of the points for one purpose
create table rounds (
  id uuid default gen_random_uuid() primary key,
  build_id uuid not null,
  revision_id uuid not null,
  recheck_id uuid,
  kind text not null check (kind in ('as-found', 'as-set', 'proved', 'recheck')),
  number integer not null check (number >= 1),
  opened_at timestamptz default now() not null,
  opened_by uuid not null,
  closed_at timestamptz,
  usage numeric(12,1),
  turn_school text check (turn_school in ('maker', 'fewest', 'each-firing', 'companion', 'open-pair', 'lobe-away', 'cam-by-hand')),
  turn_at numeric(7,3) check ((turn_at >= 0) and (turn_at < 720)),
  turn_done jsonb default '[]' not null,
  turn_said_at timestamptz default now() not null,
  constraint rounds_check check ((kind = 'recheck') = (recheck_id is not null)),
  constraint rounds_build_id_kind_number_key unique (build_id, kind, number),
  constraint rounds_id_revision_id_key unique (id, revision_id)
);

-- what was said of the conditions of a round
create table round_conditions (
  id uuid default gen_random_uuid() primary key,
  round_id uuid not null,
  engine_temp_c numeric(5,1),
  hours_since_run numeric(8,1) check (hours_since_run >= 0),
  condition text check (condition in ('cold', 'hot')),
  by uuid not null,
  at timestamptz default now() not null
);

-- what was read at a point; a second one supersedes, and nothing is lost
create table readings (
  id uuid default gen_random_uuid() primary key,
  round_id uuid not null,
  revision_id uuid not null,
  point text not null,
  reading jsonb not null,
  as_typed text not null,
  lo integer not null check (lo >= 0),
  hi integer check (hi >= 0),
  min_tenths integer not null,
  max_tenths integer not null,
  verdict text not null check (verdict in ('tight', 'loose', 'in-spec', 'undecided', 'undecided-low', 'undecided-high', 'conflict')),
  on_limit boolean default false not null,
  doubt_kept boolean default false not null,
  by uuid not null,
  at timestamptz default now() not null,
  supersedes uuid unique,
  superseded boolean default false not null,
  reason text default '' not null,
  crank_angle numeric(7,3) check ((crank_angle >= 0) and (crank_angle < 720)),
  off_base boolean default false not null,
  instrument_id uuid,
  taken_at timestamptz default now() not null,
  blind boolean default false not null,
  first_look uuid,
  format smallint default 1 not null check (format >= 1),
  before_lock boolean default false not null,
  allow_over_tenths integer default 0 not null check (allow_over_tenths >= 0),
  narrow_blade boolean default false not null,
  constraint readings_check check (((hi is not null) and (lo > hi)) = (verdict = 'conflict')),
  constraint readings_check1 check ((not off_base) or (crank_angle is not null))
);

-- what was turned, fitted, taken out or left alone
create table settings (
  id uuid default gen_random_uuid() primary key,
  build_id uuid not null,
  revision_id uuid not null,
  point text not null,
  kind text not null check (kind in ('turned', 'fitted', 'left', 'bare')),
  degrees numeric(7,1),
  installed integer check (installed > 0),
  fitted integer check (fitted > 0),
  mark text default '' not null,
  note text default '' not null,
  by uuid not null,
  at timestamptz default now() not null,
  superseded boolean default false not null,
  piece_from text default 'unsaid' not null check (piece_from in ('unsaid', 'drawer', 'engine', 'bought')),
  piece_to text default 'unsaid' not null check (piece_to in ('unsaid', 'drawer', 'engine', 'scrapped')),
  piece_giver text,
  taken_back_at timestamptz,
  taken_back_by uuid,
  taken_back_why text default '' not null,
  came_at timestamptz default now() not null,
  constraint settings_check1 check ((kind <> 'left') or (length(trim(both from note)) > 0)),
  constraint settings_fitted_said check ((kind <> 'fitted') or (fitted is not null)),
  constraint settings_taken_back_said check (((taken_back_at is null) = (taken_back_by is null)) and ((taken_back_at is null) or superseded))
);

-- Rechecks, what each point was found at, and whom it was told

-- planned and done; how it is due, and what it found
create table rechecks (
  id uuid default gen_random_uuid() primary key,
  build_id uuid not null,
  engine_id uuid not null,
  sequence integer not null check (sequence >= 1),
  planned_usage numeric(12,1) not null,
  due_usage numeric(12,1),
  due_date date,
  status text default 'planned' not null check (status in ('planned', 'done', 'dropped')),
  outcome text check (outcome in ('held', 'undecided', 'out')),
  done_at timestamptz,
  done_by uuid,
  after_outcome text check (after_outcome in ('held', 'undecided', 'out')),
  due_cycles integer,
  planned_cycles integer default 0 not null,
  season text default '' not null,
  plan_usage numeric(12,1),
  plan_date date,
  by_forecast boolean default false not null,
  held boolean default false not null,
  bench_day date,
  expected_day date,
  earliest_day date,
  latest_day date,
  forecast jsonb,
  version integer default 1 not null,
  planned_on date,
  watched boolean default false not null,
  sample jsonb default '[]' not null,
  points jsonb,
  season_from date,
  season_until date,
  forecast_at timestamptz,
  late_round uuid,
  constraint rechecks_check1 check ((status = 'done') = (outcome is not null)),
  constraint rechecks_check2 check ((status = 'done') = ((done_at is not null) and (done_by is not null))),
  constraint rechecks_due_by_something check ((due_usage is not null) or (due_date is not null) or (due_cycles is not null)),
  constraint rechecks_build_id_sequence_key unique (build_id, sequence)
);

-- what a lead did about a planned recheck, and days on the bench
create table recheck_changes (
  id uuid primary key,
  recheck_id uuid not null,
  kind text not null check (kind in ('moved', 'held', 'released', 'dropped', 'bench', 'replanned', 'let-stand')),
  day date,
  why text default '' not null,
  by uuid not null,
  at timestamptz default now() not null
);

-- what each point was found at as its recheck was judged, and what had been said of it
create table point_checks (
  recheck_id uuid not null,
  point text not null,
  sheet_id uuid not null,
  engine_id uuid not null,
  role text not null,
  since numeric(12,1) not null,
  lo integer not null,
  hi integer not null,
  from_lo integer not null,
  from_hi integer not null,
  verdict text not null,
  per_unit float8,
  se float8,
  said_mean float8,
  said_sd float8,
  at timestamptz not null,
  newest boolean default true not null,
  primary key (recheck_id, point)
);

-- letters to be sent once
create table reminders (
  id uuid default gen_random_uuid() primary key,
  recheck_id uuid not null,
  stage text not null check (stage in ('coming', 'overdue', 'not-held')),
  about text not null,
  address text not null,
  recipient text not null check (recipient in ('owner', 'lead')),
  subject text not null,
  body text not null,
  made_at timestamptz default now() not null,
  not_before timestamptz default now() not null,
  sent_at timestamptz,
  tries integer default 0 not null,
  complaint text default '' not null,
  sending_until timestamptz,
  constraint reminders_recheck_id_stage_about_address_key unique (recheck_id, stage, about, address)
);

-- Pieces: the drawer is a ledger

-- prices and reorder points, by system of pieces
create table piece_systems (
  system text primary key,
  price numeric(9,2) default 0 not null check (price >= 0),
  reorder integer default 0 not null check ((reorder >= 0) and (reorder <= 99)),
  version integer default 1 not null,
  size_prices jsonb default '[]' not null
);

-- pieces that are ordered
create table piece_orders (
  id uuid primary key,
  system text not null check ((length(system) >= 1) and (length(system) <= 40)),
  lines jsonb not null,
  note text default '' not null,
  build_id uuid,
  by uuid not null,
  at timestamptz default now() not null,
  closed_at timestamptz
);

-- what came into the drawer and what went out
create table piece_moves (
  id uuid default gen_random_uuid() primary key,
  system text not null check ((length(system) >= 1) and (length(system) <= 40)),
  thickness integer not null check (thickness > 0),
  count integer not null check (count <> 0),
  why text not null check (why in ('bought', 'kit', 'scrapped', 'counted', 'fitted', 'taken-out', 'found', 'taken-back')),
  build_id uuid,
  point text,
  note text default '' not null,
  by uuid not null,
  at timestamptz default now() not null,
  order_id uuid,
  of_shop text check ((length(of_shop) >= 1) and (length(of_shop) <= 80))
);

-- Records of engines that came from elsewhere

-- records that were taken in, and where they said something else
create table records_taken (
  id uuid default gen_random_uuid() primary key,
  engine_id uuid not null,
  shop text not null check ((length(shop) >= 1) and (length(shop) <= 80)),
  written_at timestamptz not null,
  differences jsonb default '[]' not null,
  by uuid not null,
  at timestamptz default now() not null
);

-- What refers to what

alter table people_changes
  add foreign key (by) references people (id),
  add foreign key (person_id) references people (id);

alter table sessions
  add foreign key (person_id) references people (id) on delete cascade;

alter table known_devices
  add foreign key (person_id) references people (id) on delete cascade;

alter table calendar_feeds
  add foreign key (person_id) references people (id);

alter table writes
  add foreign key (person_id) references people (id);

alter table time_questions
  add foreign key (person_id) references people (id);

alter table instrument_checks
  add foreign key (by) references people (id),
  add foreign key (instrument_id) references instruments (id);

alter table benches
  add foreign key (blade_set_id) references instruments (id);

alter table gauge_holds
  add foreign key (instrument_id) references instruments (id),
  add foreign key (person_id) references people (id);

alter table sheet_revisions
  add foreign key (checked_by) references people (id),
  add foreign key (entered_by) references people (id),
  add foreign key (sheet_id) references sheets (id);

alter table sheet_limits
  add foreign key (revision_id) references sheet_revisions (id) on delete cascade;

alter table lash_points
  add foreign key (revision_id) references sheet_revisions (id) on delete cascade,
  add constraint lash_points_revision_id_role_fkey foreign key (revision_id, role) references sheet_limits (revision_id, role);

alter table know_how
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id),
  add foreign key (sheet_id) references sheets (id);

alter table engines
  add foreign key (owner_id) references owners (id),
  add foreign key (put_away_by) references people (id),
  add foreign key (sheet_id) references sheets (id);

alter table engine_plans
  add foreign key (by) references people (id),
  add foreign key (engine_id) references engines (id);

alter table usages
  add foreign key (by) references people (id),
  add foreign key (engine_id) references engines (id),
  add foreign key (struck_by) references people (id);

alter table meter_lines
  add foreign key (answered_by) references people (id),
  add foreign key (engine_id) references engines (id);

alter table builds
  add foreign key (abandoned_by) references people (id),
  add foreign key (aim_by) references people (id),
  add foreign key (carried_round) references rounds (id),
  add foreign key (engine_id) references engines (id),
  add foreign key (opened_by) references people (id),
  add foreign key (revision_id) references sheet_revisions (id);

alter table stage_moves
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table stage_ticks
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table stage_notes
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table sign_offs
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table build_entries
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table photographs
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id),
  add foreign key (dropped_by) references people (id);

alter table rounds
  add constraint rounds_build_id_revision_id_fkey foreign key (build_id, revision_id) references builds (id, revision_id),
  add foreign key (opened_by) references people (id),
  add foreign key (recheck_id) references rechecks (id);

alter table round_conditions
  add foreign key (by) references people (id),
  add foreign key (round_id) references rounds (id);

alter table readings
  add foreign key (by) references people (id),
  add foreign key (first_look) references readings (id),
  add foreign key (instrument_id) references instruments (id),
  add constraint readings_revision_id_point_fkey foreign key (revision_id, point) references lash_points (revision_id, key),
  add constraint readings_round_id_revision_id_fkey foreign key (round_id, revision_id) references rounds (id, revision_id),
  add foreign key (supersedes) references readings (id);

alter table settings
  add constraint settings_build_id_revision_id_fkey foreign key (build_id, revision_id) references builds (id, revision_id),
  add foreign key (by) references people (id),
  add constraint settings_revision_id_point_fkey foreign key (revision_id, point) references lash_points (revision_id, key),
  add foreign key (taken_back_by) references people (id);

alter table rechecks
  add foreign key (build_id) references builds (id),
  add foreign key (done_by) references people (id),
  add foreign key (engine_id) references engines (id),
  add foreign key (late_round) references rounds (id);

alter table recheck_changes
  add foreign key (by) references people (id),
  add foreign key (recheck_id) references rechecks (id);

alter table point_checks
  add foreign key (engine_id) references engines (id),
  add foreign key (recheck_id) references rechecks (id),
  add foreign key (sheet_id) references sheets (id);

alter table reminders
  add foreign key (recheck_id) references rechecks (id);

alter table piece_orders
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id);

alter table piece_moves
  add foreign key (build_id) references builds (id),
  add foreign key (by) references people (id),
  add foreign key (order_id) references piece_orders (id);

alter table records_taken
  add foreign key (by) references people (id),
  add foreign key (engine_id) references engines (id);

-- What is looked for

create unique index people_name on people (lower(name));
create index people_changes_at on people_changes (at desc);
create index sessions_expires on sessions (expires_at);
create index sessions_person on sessions (person_id);
create index known_devices_person on known_devices (person_id);
create index sign_in_tries_last on sign_in_tries (last_at);
create index calendar_feeds_of on calendar_feeds (person_id);
create index writes_at on writes (at);
create unique index instruments_name on instruments (lower(name));
create index instrument_checks_instrument on instrument_checks (instrument_id, at desc);
create unique index benches_name on benches (lower(name));
create unique index sheet_revisions_one_draft on sheet_revisions (sheet_id) where (status = 'draft');
create index know_how_of_sheet on know_how (sheet_id, at);
create unique index owners_name on owners (lower(name));
create unique index engines_name on engines (lower(name));
create index engines_owner on engines (lower(owner), lower(name));
create index engines_owner_id on engines (owner_id);
create index engines_put_away on engines (put_away_at) where (put_away_at is not null);
create index engines_sheet on engines (sheet_id);
create index engines_sought_by on engines using gin (sought gin_trgm_ops);
create index engines_usage on engines (usage, lower(name));
create index engine_plans_of on engine_plans (engine_id, at);
create index usages_engine on usages (engine_id, read_at desc);
create unique index usages_fed_once on usages (engine_id, read_at) where ((source = 'feed') and (struck_at is null));
create index meter_lines_asked on meter_lines (at) where (state = 'asked');
create unique index meter_lines_bad_once on meter_lines (md5(line)) where (line <> '');
create index builds_on_bench on builds (stage, stage_since) where (closed_at is null);
create unique index builds_one_open on builds (engine_id) where (closed_at is null);
create index builds_revision on builds (revision_id);
create index stage_moves_build on stage_moves (build_id, at);
create index stage_notes_build on stage_notes (build_id, at);
create index build_entries_of_build on build_entries (build_id, room, at, id);
create index photographs_of_build on photographs (build_id, at);
create index rounds_build on rounds (build_id, opened_at);
create unique index rounds_one_a_recheck on rounds (recheck_id) where (recheck_id is not null);
create index round_conditions_round on round_conditions (round_id, at);
create index readings_before_lock on readings (by, taken_at) where before_lock;
create unique index readings_current on readings (round_id, point) where (not superseded);
create index readings_taken on readings (round_id, point, taken_at desc);
create unique index settings_current on settings (build_id, point, ((kind = 'left'))) where (not superseded);
create index rechecks_due_date on rechecks (due_date) where (status = 'planned');
create index rechecks_of_engine on rechecks (engine_id);
create unique index rechecks_one_planned on rechecks (build_id) where (status = 'planned');
create index rechecks_planned on rechecks (expected_day) where (status = 'planned');
create index recheck_changes_of on recheck_changes (recheck_id, at);
create index point_checks_lately on point_checks (sheet_id, at);
create index point_checks_newest on point_checks (sheet_id) where newest;
create index point_checks_of_engine on point_checks (engine_id);
create index point_checks_of_sheet on point_checks (sheet_id, role);
create index reminders_unsent on reminders (not_before) where (sent_at is null);
create index piece_orders_of_system on piece_orders (system, at);
create index piece_moves_of_build on piece_moves (build_id) where (build_id is not null);
create index piece_moves_of_order on piece_moves (order_id) where (order_id is not null);
create index piece_moves_of_system on piece_moves (system, thickness);
create index records_taken_of_engine on records_taken (engine_id, at desc);

-- What the database itself holds to

create function answer_time_question() returns trigger language plpgsql as $$
    begin
      delete from time_questions where key = new.key;
      return null;
    end $$;

create function engine_has_owner() returns trigger language plpgsql as $$
    begin
      new.owner := trim(new.owner);
      if new.owner = '' then
        new.owner_id := null;
      else
        insert into owners (name) values (new.owner) on conflict (lower(name)) do nothing;
        select o.id, o.name into new.owner_id, new.owner from owners o where lower(o.name) = lower(new.owner);
      end if;
      return new;
    end $$;

create function engine_is_sought_by() returns trigger language plpgsql as $$
    begin
      new.sought := lower(concat_ws(' ', new.name, new.serial, new.owner, new.duty, new.place,
        (select s.name from sheets s where s.id = new.sheet_id)));
      return new;
    end $$;

create function is_append_only() returns trigger language plpgsql as $$
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - 'superseded' <> to_jsonb(old) - 'superseded'
         or (old.superseded and not new.superseded) then
        raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
      end if;
      return new;
    end $$;

create function is_final() returns trigger language plpgsql as $$
    begin
      raise exception 'what was written stays' using errcode = 'ZL002';
    end $$;

create function owner_is_called() returns trigger language plpgsql as $$
    begin
      update engines set owner = new.name where owner_id = new.id;
      return null;
    end $$;

create function setting_stays() returns trigger language plpgsql as $$
    declare
      may text[] := array['superseded', 'taken_back_at', 'taken_back_by', 'taken_back_why'];
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - may <> to_jsonb(old) - may or old.taken_back_at is not null then
        raise exception 'what was written stays: add a row that supersedes it' using errcode = 'ZL002';
      end if;
      return new;
    end $$;

create function sheet_part_is_fixed() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = old.revision_id and r.published_at is not null) then raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001'; end if;
      if tg_op = 'DELETE' then return old; end if; return new;
    end $$;

create function sheet_part_joins_a_draft() returns trigger language plpgsql as $$
    begin
      if exists (select 1 from sheet_revisions r where r.id = new.revision_id and r.published_at is not null) then raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001'; end if;
      return new;
    end $$;

create function sheet_revision_is_fixed() returns trigger language plpgsql as $$
    begin
      if old.published_at is not null then raise exception 'a published spec sheet revision is immutable' using errcode = 'ZL001'; end if;
      if tg_op = 'DELETE' then return old; end if; return new;
    end $$;

create function usage_stays() returns trigger language plpgsql as $$
    declare
      may text[] := array['running', 'struck_at', 'struck_by', 'struck_why'];
    begin
      if tg_op = 'DELETE' or to_jsonb(new) - may <> to_jsonb(old) - may
        or (old.struck_at is not null and new.struck_at is distinct from old.struck_at) then
        raise exception 'what was written stays' using errcode = 'ZL002';
      end if;
      return new;
    end $$;

create trigger build_entries_append_only before delete or update on build_entries for each row execute function is_final();
create trigger engine_plans_final before delete or update on engine_plans for each row execute function is_final();
create trigger engines_has_owner before insert or update of owner on engines for each row execute function engine_has_owner();
create trigger engines_sought before insert or update of name, serial, owner, duty, place, sheet_id on engines for each row execute function engine_is_sought_by();
create trigger instrument_checks_final before delete or update on instrument_checks for each row execute function is_final();
create trigger lash_points_fixed before delete or update on lash_points for each row execute function sheet_part_is_fixed();
create trigger lash_points_join before insert on lash_points for each row execute function sheet_part_joins_a_draft();
create trigger owners_called after update of name on owners for each row when ((old.name is distinct from new.name)) execute function owner_is_called();
create trigger people_changes_final before delete or update on people_changes for each row execute function is_final();
create trigger piece_moves_final before delete or update on piece_moves for each row execute function is_final();
create trigger readings_append_only before delete or update on readings for each row execute function is_append_only();
create trigger recheck_changes_final before delete or update on recheck_changes for each row execute function is_final();
create trigger records_taken_final before delete or update on records_taken for each row execute function is_final();
create trigger round_conditions_final before delete or update on round_conditions for each row execute function is_final();
create trigger settings_append_only before delete or update on settings for each row execute function setting_stays();
create trigger sheet_limits_fixed before delete or update on sheet_limits for each row execute function sheet_part_is_fixed();
create trigger sheet_limits_join before insert on sheet_limits for each row execute function sheet_part_joins_a_draft();
create trigger sheet_revision_fixed before delete or update on sheet_revisions for each row execute function sheet_revision_is_fixed();
create trigger sign_offs_final before delete or update on sign_offs for each row execute function is_final();
create trigger usages_stay before delete or update on usages for each row execute function usage_stays();
create trigger writes_answer after insert on writes for each row execute function answer_time_question();

insert into write_tries default values;
`;
