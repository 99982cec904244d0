/** Icon is one drawing, the text of an SVG file, in the colour and size of the text around it. */
export function Icon({ of }: { of: string }) {
  return <span className="icon" aria-hidden dangerouslySetInnerHTML={{ __html: of }} />;
}
