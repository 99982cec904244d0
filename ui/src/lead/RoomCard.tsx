import { roomCodeQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Pad } from "./Pad";
import { t } from "../language/text";

/** RoomCard is how a second screen, a projector or a shared window joins: a short address, and a QR code of it. */
export function RoomCard({ onClose }: { onClose: () => void }) {
  const room = useQuery(roomCodeQuery);
  const address = room.data?.address.replace("http://", "");
  return (
    <Pad title={t("lead.the-rooms-screen")} onClose={onClose}>
      <div className="roomcode">
        {room.isError && <ErrorAlert error={room.error} />}
        {address && (
          <>
            <img src="/api/room/qr.png" alt={t("lead.qr-code", { address })} />
            <p className="address">
              <a href={`/room/${room.data?.code}`} target="_blank" rel="noreferrer">
                {address}
              </a>
            </p>
            <p className="text-secondary mb-0">{t("lead.it-shows-the-word-side-count")}</p>
            {room.data?.only_here && (
              <p className="text-secondary mt-2 mb-0">{t("lead.only-this-computer-reaches")}</p>
            )}
          </>
        )}
      </div>
    </Pad>
  );
}
