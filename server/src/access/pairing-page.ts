const escaped = (text: string) =>
  text.replace(/[&<>"']/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!)

/** All that a device on the network sees before it is let in: one form, and no part of the application. */
export const pairingPage = ({ code = '', name = '', problem = '' } = {}): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Pair this device · Nobbet</title>
<style>
body{font:18px/1.45 system-ui,sans-serif;color:#14201c;background:#f4f5f1;margin:0;padding:24px}
main{max-width:26rem;margin:0 auto;background:#fff;border:2px solid #14201c;padding:24px}
h1{font-size:1.5rem;margin:0 0 .5rem}label{display:block;font-weight:600;margin:1rem 0 .25rem}
input{box-sizing:border-box;width:100%;font-size:1.25rem;padding:.6rem;border:2px solid #14201c}
input[name=code]{font-family:ui-monospace,monospace;letter-spacing:.2em;text-transform:uppercase}
button{margin-top:1.25rem;width:100%;min-height:56px;font:600 1.15rem system-ui,sans-serif;color:#fff;background:#14463a;border:0}
[role=alert]{border-left:6px solid #a3160c;padding:.5rem .75rem;background:#fdeceb}
</style></head><body><main>
<h1>Pair this device</h1>
<p>This Nobbet lets in paired devices only. On the machine it runs on, open <b>Server</b>, press <b>Pair a device</b> and type the code here.</p>
${problem ? `<p role="alert">${escaped(problem)}</p>` : ''}
<form method="post" action="/pair">
<label for="code">Code</label>
<input id="code" name="code" required autocomplete="off" autocapitalize="characters" maxlength="12" value="${escaped(code)}">
<label for="name">What this device is called</label>
<input id="name" name="name" required maxlength="40" placeholder="Van phone" value="${escaped(name)}">
<button>Pair</button>
</form></main></body></html>
`
