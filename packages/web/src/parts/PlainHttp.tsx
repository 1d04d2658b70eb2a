/**
 * Said when the app is opened over plain http from another machine: the browser then takes away what keeps weights safe without a
 * network. The page that helps stands on the same address.
 */
export function PlainHttp() {
  if (window.isSecureContext) return null;
  return (
    <p role="status" className="no-print bg-attention px-4 py-1.5 text-[15px]">
      <strong>Opened over plain http.</strong> Weighing works while the network holds. Opening without network, one tab
      sending for all, and the voice do not: browsers allow them only over HTTPS.{' '}
      <a className="font-semibold underline" href="/trust">
        Let this tablet trust the house
      </a>
    </p>
  );
}
