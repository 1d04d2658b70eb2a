/** The page a tablet opens first, over plain http: what to trust, how, and where to go then. No script: it must work everywhere. */
const asText = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c);

export const trustPage = (address: string, fingerprint: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Trust this house</title>
<style>body{font:18px/1.5 system-ui,sans-serif;max-width:40em;margin:0 auto;padding:1.5em;background:#E6EBEA;color:#14211F}
a.b{display:inline-block;padding:.8em 1.2em;margin:.4em 0;background:#14211F;color:#fff;border-radius:10px;text-decoration:none;font-weight:600}
li{margin:.4em 0}h1{line-height:1.2}</style></head><body>
<h1>Let this tablet trust your kitchen’s server</h1>
<p>The kitchen’s server speaks to trusted tablets only. It is done once on each tablet.</p>
<p><a class="b" href="/house-certificate.crt">1. Get the house’s certificate</a></p>
<p>2. Before you install it: the tablet shows the certificate’s SHA-256 fingerprint. It must be the one that stands on the server’s own screen, not only the one here:<br><code style="word-break:break-all">${asText(fingerprint)}</code></p>
<p>3. Install and trust it:</p>
<ul>
<li><strong>iPad:</strong> Settings, Profile downloaded, Install. Then Settings, General, About, Certificate Trust Settings: switch it on.</li>
<li><strong>Android:</strong> Settings, Security, Encryption and credentials, Install a certificate, CA certificate: choose the file.</li>
<li><strong>Desktop:</strong> open the file and add it to the trusted authorities.</li>
</ul>
<p><a class="b" href="${asText(address)}">Then open ${asText(address)}</a></p>
<p>The certificate was made on this house’s own machine and is good only for it. Take it off a tablet that leaves the kitchen.</p>
</body></html>`;
