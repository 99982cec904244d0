import { certificateQuery } from "../queries";
import { useQuery } from "@tanstack/react-query";
import { ErrorAlert } from "./ErrorAlert";
import { Loading } from "./Loading";
import { Message } from "./Message";
import { rich, t } from "../../language/text";

/** How the certificate is installed, by what the device is. */
const ways = (): [string, string[]][] => [
  [
    t("frame.iphone-and-ipad"),
    [
      t("frame.load-the-certificate-in-the-systems"),
      t("frame.settings-general-vpn-device-management-install"),
      t("frame.settings-general-about-certificate-trust-settings"),
    ],
  ],
  [
    t("frame.android"),
    [t("frame.load-the-certificate-2"), t("frame.settings-security-more-encryption-credentials-install")],
  ],
  [
    t("frame.macos"),
    [t("frame.load-the-certificate-and-open"), t("frame.double-click-it-there-trust-always")],
  ],
  [
    t("frame.windows"),
    [t("frame.load-the-certificate-and-open-2"), t("frame.place-it-in-trusted-root-certification")],
  ],
  [t("frame.linux"), [t("frame.in-the-browsers-settings-certificates-authorities")]],
];

/** CertificateView helps the teacher's own devices to trust the machine that serves. */
export function CertificateView() {
  const certificate = useQuery(certificateQuery);
  const { data } = certificate;
  return (
    <main className="container py-4">
      <h1>{t("frame.trust-this-machine")}</h1>
      {certificate.isPending && <Loading what={t("frame.asking-for-the-certificate")} />}
      {certificate.isError && <ErrorAlert error={certificate.error} />}
      {data && (
        <>
          <p>{rich("frame.the-teacher-apos-s-side", { b: <b>{t("frame.install-it-on-devices")}</b> })}</p>
          {data.secure && (
            <Message variant="light">{t("frame.this-page-arrived-encrypted-the-certificate")}</Message>
          )}
          <p>
            <a className="btn btn-primary btn-lg" href="/api/certificate/file">
              {t("frame.load-the-certificate")}
            </a>{" "}
            <a className="btn btn-outline-primary btn-lg" href={data.address}>
              {t("frame.then-open", { address: data.address })}
            </a>
          </p>
          <p>
            {t("frame.what-the-device-shows-as-its")}
            <br />
            <code>{data.fingerprint}</code>
          </p>
          <div className="row">
            {ways().map(([device, steps]) => (
              <section key={device} className="col-md-6">
                <h2 className="h5">{device}</h2>
                <ol>
                  {steps.map((step) => (
                    <li key={step}>{step}</li>
                  ))}
                </ol>
              </section>
            ))}
          </div>
          <p className="text-secondary">{t("frame.it-vouches-for-addresses-of-local")}</p>
        </>
      )}
    </main>
  );
}
