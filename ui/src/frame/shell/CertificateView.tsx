import { certificateQuery } from "../queries";
import { useQuery } from "@tanstack/react-query";
import { ErrorAlert } from "./ErrorAlert";
import { Loading } from "./Loading";
import { Message } from "./Message";

/** How the certificate is installed, by what the device is. */
const ways: [string, string[]][] = [
  [
    "iPhone and iPad",
    [
      "Load the certificate in the system's own browser, and allow the profile.",
      "Settings, General, VPN & Device Management: install “Vast Lantern on …”.",
      "Settings, General, About, Certificate Trust Settings: switch it on.",
    ],
  ],
  [
    "Android",
    [
      "Load the certificate.",
      "Settings, Security, More, Encryption & credentials, Install a certificate, CA certificate: choose the file.",
    ],
  ],
  [
    "macOS",
    [
      "Load the certificate and open it: it goes to the keychain.",
      "Double-click it there, Trust, Always Trust.",
    ],
  ],
  [
    "Windows",
    [
      "Load the certificate and open it, Install Certificate, Current User.",
      "Place it in “Trusted Root Certification Authorities”.",
    ],
  ],
  ["Linux", ["In the browser's settings, Certificates, Authorities, Import: trust it to identify websites."]],
];

/** CertificateView helps the teacher's own devices to trust the machine that serves. */
export function CertificateView() {
  const certificate = useQuery(certificateQuery);
  const { data } = certificate;
  return (
    <main className="container py-4">
      <h1>Trust this machine</h1>
      {certificate.isPending && <Loading what="Asking for the certificate" />}
      {certificate.isError && <ErrorAlert error={certificate.error} />}
      {data && (
        <>
          <p>
            The teacher&apos;s side is encrypted. A device of yours trusts it once the certificate of this
            machine is installed on it. <b>Install it on devices of your own only</b>: people who come to a
            class open the room&apos;s page, which needs none.
          </p>
          {data.secure && (
            <Message variant="light">
              This page arrived encrypted: the certificate is installed on this device.
            </Message>
          )}
          <p>
            <a className="btn btn-primary btn-lg" href="/api/certificate/file">
              1. Load the certificate
            </a>{" "}
            <a className="btn btn-outline-primary btn-lg" href={data.address}>
              2. Then open {data.address}
            </a>
          </p>
          <p>
            What the device shows as its SHA-256 fingerprint must be this one, which the machine that serves
            prints too at its start:
            <br />
            <code>{data.fingerprint}</code>
          </p>
          <div className="row">
            {ways.map(([device, steps]) => (
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
          <p className="text-secondary">
            It vouches for addresses of local networks and names that end in .local, and for nothing else. How
            it is installed is from memory, and differs between versions of the systems.
          </p>
        </>
      )}
    </main>
  );
}
