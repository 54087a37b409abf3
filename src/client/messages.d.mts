export function textsOfClient(code: string): string[]
export function textsOfServer(code: string): string[]
