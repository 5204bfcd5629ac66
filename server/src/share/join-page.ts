/** The one page a stranger on the local network sees: it asks for the code. */
export const joinPage = (fault = ''): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>Code</title><style>
body{font:20px/1.4 system-ui,sans-serif;margin:0;background:#e9edef;color:#12181c;display:grid;min-height:100vh;place-items:center}
form{width:min(22rem,88vw)}h1{font-size:26px;margin:0 0 .5rem}
input{font:32px ui-monospace,monospace;width:100%;box-sizing:border-box;padding:.5rem;letter-spacing:.12em;text-transform:uppercase;border:2px solid #12181c;border-radius:4px}
button{font:700 22px system-ui,sans-serif;width:100%;min-height:64px;margin-top:.8rem;border:0;border-radius:4px;background:#1d4fb8;color:#fff}
[role=alert]{color:#a3261b;font-weight:700;min-height:1.4em}</style></head>
<body><main><form method="post" action="/join"><h1><label for="code">Code from the desk</label></h1>
<input id="code" name="code" autocomplete="off" autocapitalize="characters" spellcheck="false" maxlength="12" required>
<p role="alert">${fault}</p><button>Join the run</button></form></main><script src="/join.js"></script></body></html>`;

/** Fills the code in from the address a QR code led to, where no server and no history keeps it, and sends it. */
export const JOIN_SCRIPT = `const code = decodeURIComponent(location.hash.slice(1));
if (code) {
  history.replaceState(null, '', location.pathname);
  document.getElementById('code').value = code;
  document.querySelector('form').submit();
}
`;
