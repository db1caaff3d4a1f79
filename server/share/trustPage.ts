import type { Authority } from './authority.ts';

const escaped = (text: string) => text.replace(/[&<>"]/g, (each) => `&#${each.charCodeAt(0)};`);

/** The page on which a tablet learns to trust the shop's server; it needs no script, and shows nothing of the shop. */
export function trustPage({ fingerprint }: Pick<Authority, 'fingerprint'>, address: string): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Zero Lash: this tablet and the shop</title>
<style>
body { font: 17px/1.5 system-ui, sans-serif; max-width: 42em; margin: 0 auto; padding: 24px 20px 60px; color: #1d2733; background: #f6f3ec; }
h1 { font-size: 26px; line-height: 1.2; }
h2 { font-size: 19px; margin: 28px 0 6px; border-top: 1px solid #c9c2b3; padding-top: 16px; }
a.go { display: inline-block; min-height: 44px; line-height: 44px; padding: 0 18px; background: #1d2733; color: #fff; text-decoration: none; font-weight: 650; }
code { font-size: 15px; }
li { margin: 4px 0; }
.caution { border-left: 4px solid #a2341f; padding-left: 14px; }
</style>
</head>
<body>
<h1>Bring this tablet to the bench</h1>
<p>The shop’s server speaks only over a connection that nobody else in the network can read. So that this tablet knows it is
the shop’s server it speaks with, it has to be given the shop’s own certificate once.</p>
<h2>1. Take the certificate</h2>
<p><a class="go" href="/zero-lash-shop.crt" download>Download the certificate</a></p>
<p>Hold this against what the server printed as it started. If they differ, stop: somebody stands in between.</p>
<p><code>${escaped(fingerprint).replaceAll(':', ':<wbr>')}</code></p>
<h2>2. Have it trusted</h2>
<ul>
<li>On tablets whose settings have a page for certificates: Settings, search for “certificate”, install a CA certificate, and
choose the file that was downloaded.</li>
<li>On tablets that take it as a profile: open the file, install the profile under Settings, then switch it on under the
certificate trust settings, on the page about the device.</li>
<li>On a computer: open the browser’s settings, search for “certificates”, and import it as an authority that identifies
web sites. Some ask the operating system instead: there it belongs among the trusted root authorities.</li>
</ul>
<h2>3. Open the shop</h2>
<p><a class="go" href="${escaped(address)}">${escaped(address)}</a></p>
<p>If the browser still warns, the certificate is not trusted yet: go back to 2. Do not pass the warning by.</p>
<p class="caution">Whoever has the key of this certificate could show a tablet that trusts it any page as genuine. The key stays
on the server, in its data folder. Give the certificate only to the shop’s own tablets, and take it off again when one leaves the
shop.</p>
</body>
</html>
`;
}
