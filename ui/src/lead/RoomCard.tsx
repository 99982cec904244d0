import { roomCodeQuery } from "./queries";
import { useQuery } from "@tanstack/react-query";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Pad } from "./Pad";

/** RoomCard is how a second screen, a projector or a shared window joins: a short address, and a QR code of it. */
export function RoomCard({ onClose }: { onClose: () => void }) {
  const room = useQuery(roomCodeQuery);
  const address = room.data?.address.replace("http://", "");
  return (
    <Pad title="The room's screen" onClose={onClose}>
      <div className="roomcode">
        {room.isError && <ErrorAlert error={room.error} />}
        {address && (
          <>
            <img src="/api/room/qr.png" alt={`QR code of ${address}`} />
            <p className="address">
              <a href={`/room/${room.data?.code}`} target="_blank" rel="noreferrer">
                {address}
              </a>
            </p>
            <p className="text-secondary mb-0">
              It shows the word, side, count, lamps and your lines for the room. Nothing can be changed there.
              The address stays the same for every class.
            </p>
            {room.data?.only_here && (
              <p className="text-secondary mt-2 mb-0">
                Only this computer reaches it: for a projector or a shared window. Phones reach it when the
                application is started with --lan.
              </p>
            )}
          </>
        )}
      </div>
    </Pad>
  );
}
