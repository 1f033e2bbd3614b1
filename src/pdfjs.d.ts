/** The address of the PDF reader's worker, as the build gives it. */
declare module 'pdfjs-dist/build/pdf.worker.min.mjs?url' {
  const address: string;
  export default address;
}
