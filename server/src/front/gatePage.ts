/** What the page says that hands the authority to a phone. */
export interface GateWords {
  readonly address: string
  readonly code: string
  readonly fingerprint: string
  readonly names: readonly string[]
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[sign] ?? '&quot;')

/** The fingerprint in lines that can be compared with another by eye. */
export const fingerprintLines = (fingerprint: string): string[] => fingerprint.match(/(?:[0-9A-F]{2}:?){1,8}/g) ?? []

/** Where the file is taken, and what it is called when a phone keeps it. */
export const AUTHORITY_PATH = '/undercliff.crt'
export const SCRIPT_PATH = '/gate.js'
/** A picture that only a browser that trusts the certificate gets to see. */
export const TRUSTED_PATH = '/trusted.svg'

const STYLE = `
:root { color-scheme: light dark; font: 18px/1.5 system-ui, sans-serif; }
body { max-width: 40rem; margin: 0 auto; padding: 1rem 1rem 3rem; }
h1 { font-size: 1.5rem; line-height: 1.2; } h2 { font-size: 1.15rem; margin-top: 2rem; }
a.act { display: block; box-sizing: border-box; min-height: 56px; padding: 14px 16px; margin: 1rem 0;
  border: 2px solid; border-radius: 4px; font-weight: 700; text-decoration: none; color: inherit; }
#answer { padding: 12px 16px; border-left: 6px solid; } #answer.yes { font-weight: 700; }
code { font: 1rem/1.7 ui-monospace, monospace; display: block; overflow-wrap: anywhere; }
li { margin: .4rem 0; } svg { width: 11rem; height: 11rem; background: #fff; }
@media (max-width: 700px) { .code { display: none; } }
@media print { .screen { display: none; } .code { display: block; } }
`

/** The page for a phone that comes for the first time: by plain http, so it asks for nothing and knows nothing. */
export const gatePage = ({ address, code, fingerprint, names }: GateWords, nonce: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>A phone comes to Undercliff</title>
<style nonce="${nonce}">${STYLE}</style>
<script src="${SCRIPT_PATH}" defer></script>
</head>
<body data-secure="${escaped(address)}">
<h1>A phone comes to Undercliff for the first time</h1>
<p>At its secure address Undercliff opens out of range too, keeps what is logged, and may use the camera. For that a
phone takes this crew's own certificate, once.</p>
<div class="screen">
<p id="answer" role="status">Looking whether this phone knows it already …</p>
<p><a class="act" id="open" href="${escaped(address)}">Open Undercliff at ${escaped(address)}</a></p>
</div>
<div class="code"><h2>With the camera of the phone</h2>${code}</div>
<h2>1. Compare</h2>
<p>The lead's screen (House, Phones) or the printed sheet shows the same figures. Where one differs, take nothing and
tell the lead: somebody else may be answering.</p>
<code>${fingerprintLines(fingerprint).map(escaped).join('<br>')}</code>
<h2>2. Take the certificate</h2>
<p class="screen"><a class="act" href="${AUTHORITY_PATH}" download="undercliff.crt">Take the certificate</a></p>
<h2>3. Tell the phone to trust it</h2>
<p><b>If the phone speaks of a profile:</b></p>
<ol>
<li>Allow the download, then open the phone's settings: <i>Profile downloaded</i>, <i>Install</i>.</li>
<li>In the settings go to <i>General</i>, <i>About</i>, <i>Certificate trust settings</i>, and switch this crew's on.
Without this step it is kept and not trusted.</li>
</ol>
<p><b>If the phone saves a file:</b></p>
<ol>
<li>Open the phone's settings and search them for <i>certificate</i>; choose to install a <i>CA certificate</i>. The
phone wants a screen lock, and warns.</li>
<li>Choose the file <i>undercliff.crt</i> among the downloads.</li>
</ol>
<p>The warnings are right to ask: whoever holds the key of such a certificate could pose as others. This one can vouch
for nothing but ${names.map(escaped).join(', ')}.</p>
<h2>4. See whether it worked</h2>
<p class="screen"><a class="act" href="/">Look again</a></p>
<p>When it did, the top of this page says so. Open Undercliff there, sign in, and add it to the home screen from the
browser's menu.</p>
</body>
</html>
`

/** Asks the secure address for a picture, which comes only where the phone trusts it. */
export const GATE_SCRIPT = `'use strict';
const answer = document.getElementById('answer');
const picture = new Image();
picture.onload = () => {
  answer.textContent = 'This phone knows it. Open Undercliff below.';
  answer.className = 'yes';
};
picture.onerror = () => {
  answer.textContent = 'This phone does not know it yet, or Undercliff does not answer. Do the four steps below.';
};
picture.src = document.body.dataset.secure + '${TRUSTED_PATH}?' + Date.now();
`
