import { data } from 'react-router';
import { shopCertificate } from '../frame/network.server';

/**
 * The shop's own certificate as phones take one in (DER); 404 where none is served. It is no
 * secret: whoever asks may have it.
 */
export function loader() {
  const shop = shopCertificate();
  if (!shop) throw data(null, { status: 404 });
  return new Response(new Uint8Array(shop.raw), {
    headers: {
      'Content-Type': 'application/x-x509-ca-cert',
      'Content-Disposition': 'attachment; filename="patrone-shop.crt"',
    },
  });
}
