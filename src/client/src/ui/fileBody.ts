/** A request whose body is a file, sent as it is. */
export const rawBody = (file: File, type: string) => ({
  body: file as never,
  bodySerializer: (body: unknown) => body as Blob,
  headers: { 'Content-Type': type },
})

/** The same, of a class. */
export const fileBody = (classId: number, file: File, type: string) => ({
  params: { path: { classId } },
  ...rawBody(file, type),
})
