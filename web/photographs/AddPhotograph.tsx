import { MOST_PHOTO_BYTES, type NewPhotograph } from '@zero-lash/contract/photographs';
import { useState } from 'react';
import { FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { base64Of, madeSmaller, whyNoPicture } from '../app/picture.ts';

interface Props {
  readonly buildId: string;
  /** where it is taken, what it is of, and which damage it shows */
  readonly of: Pick<NewPhotograph, 'stage' | 'about' | 'shows'>;
  /** what the file is asked for as */
  readonly label: string;
  /** what the button says, where that is another than the label */
  readonly children: string;
  readonly plain?: boolean;
  readonly onAdded?: () => void;
}

/** Takes a photograph: it is looked at and made smaller here, and waits on the device until it is sent. */
export function AddPhotograph({ buildId, of, label, children, plain = false, onAdded }: Props) {
  const put = useBenchWrite(buildId);
  const [complaint, setComplaint] = useState<string | null>(null);

  async function add(file: File) {
    setComplaint(null);
    if (file.size > MOST_PHOTO_BYTES)
      return setComplaint(`${file.name} is larger than 12 MB: take it smaller, and send it again.`);
    const why = whyNoPicture(new Uint8Array(await file.slice(0, 16).arrayBuffer()));
    if (why) return setComplaint(`${file.name} ${why}.`);
    const bytes = await madeSmaller(file).catch(() => null);
    if (!bytes) return setComplaint(`${file.name} is damaged: it begins like a picture, and is none.`);
    put({ kind: 'photograph', body: { ...of, note: '', file: base64Of(bytes) } });
    return onAdded?.();
  }

  return (
    <>
      <FileButton
        what={label}
        accept="image/png,image/jpeg,image/webp"
        variant={plain ? 'plain' : undefined}
        onFile={add}
      >
        {children}
      </FileButton>
      {complaint && (
        <Note tone="tight" role="alert" marginTop="2">
          {complaint}
        </Note>
      )}
    </>
  );
}
