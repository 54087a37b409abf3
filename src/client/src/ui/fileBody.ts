/** A request of a class whose body is a file, sent as it is. */
export const fileBody = (classId: number, file: File, type: string) => ({
  params: { path: { classId } },
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': type },
})
