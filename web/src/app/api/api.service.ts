import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import type {
  CreateItem,
  CreateScene,
  ErrorAnswer,
  ImportAnswer,
  ImportRequest,
  LabelItems,
  LibraryDetail,
  LibraryEntry,
  MoveDraft,
  SaveDraft,
  SaveRequest,
  SceneSummary,
  StoredScene,
  TokensAnswer,
  TokensRequest,
} from '@wexikine/core';
import { catchError, from, switchMap, throwError, type Observable } from 'rxjs';
import { holdsLongList, jsonBlob } from './json-blob';

/** A failed request, with the sentence to show. `offline` means that no answer came. */
export class ApiProblem extends Error {
  constructor(
    message: string,
    readonly code: ErrorAnswer['code'] | 'offline',
    readonly answer: ErrorAnswer | null = null,
  ) {
    super(message);
  }
}

function toProblem(error: unknown): ApiProblem {
  if (!(error instanceof HttpErrorResponse))
    return new ApiProblem('Something went wrong in this window. Reload it.', 'broken');
  const answer = error.error as Partial<ErrorAnswer> | null;
  if (error.status === 0 || typeof answer?.message !== 'string') {
    return new ApiProblem(
      'The server does not answer. Check that it is running; this window will try again.',
      'offline',
    );
  }
  return new ApiProblem(answer.message, answer.code ?? 'broken', answer as ErrorAnswer);
}

/** All requests to the server; every one fails with an `ApiProblem`. */
@Injectable({ providedIn: 'root' })
export class ApiService {
  private readonly http = inject(HttpClient);

  scenes(): Observable<SceneSummary[]> {
    return this.told(this.http.get<SceneSummary[]>('/api/scenes'));
  }

  scene(id: string): Observable<StoredScene> {
    return this.told(this.http.get<StoredScene>(`/api/scenes/${encodeURIComponent(id)}`));
  }

  createScene(body: CreateScene): Observable<StoredScene> {
    return this.told(this.http.post<StoredScene>('/api/scenes', body));
  }

  saveScene(id: string, body: SaveRequest): Observable<{ version: number }> {
    const put = (content: SaveRequest | Blob): Observable<{ version: number }> =>
      this.http.put<{ version: number }>(`/api/scenes/${encodeURIComponent(id)}`, content);
    return this.told(holdsLongList(body) ? from(jsonBlob(body)).pipe(switchMap(put)) : put(body));
  }

  renameScene(id: string, name: string, by: string): Observable<{ version: number }> {
    return this.told(this.http.patch<{ version: number }>(`/api/scenes/${encodeURIComponent(id)}`, { name, by }));
  }

  copyScene(id: string, by: string): Observable<StoredScene> {
    return this.told(this.http.post<StoredScene>(`/api/scenes/${encodeURIComponent(id)}/copy`, { by }));
  }

  deleteScene(id: string): Observable<unknown> {
    return this.told(this.http.delete(`/api/scenes/${encodeURIComponent(id)}`));
  }

  restoreScene(id: string): Observable<unknown> {
    return this.told(this.http.post(`/api/scenes/${encodeURIComponent(id)}/restore`, {}));
  }

  /** All of the library, or the items with the given ids. */
  library(ids?: readonly string[]): Observable<LibraryEntry[]> {
    const query = ids === undefined ? '' : `?ids=${ids.map(encodeURIComponent).join(',')}`;
    return this.told(this.http.get<LibraryEntry[]>(`/api/library${query}`));
  }

  item(id: string): Observable<LibraryDetail> {
    return this.told(this.http.get<LibraryDetail>(`/api/library/${encodeURIComponent(id)}`));
  }

  createItem(body: CreateItem): Observable<LibraryEntry> {
    return this.told(this.http.post<LibraryEntry>('/api/library', body));
  }

  labelItems(body: LabelItems): Observable<LibraryEntry[]> {
    return this.told(this.http.patch<LibraryEntry[]>('/api/library', body));
  }

  saveDraft(id: string, body: SaveDraft): Observable<LibraryEntry> {
    return this.told(this.http.put<LibraryEntry>(`/api/library/${encodeURIComponent(id)}/draft`, body));
  }

  moveDraft(id: string, body: MoveDraft): Observable<LibraryEntry> {
    return this.told(this.http.post<LibraryEntry>(`/api/library/${encodeURIComponent(id)}/draft/move`, body));
  }

  discardDraft(id: string, base: number, by: string): Observable<unknown> {
    return this.told(this.http.post(`/api/library/${encodeURIComponent(id)}/draft/discard`, { base, by }));
  }

  /** Items with all that they need as a zip file; none stands for the whole library. */
  pack(ids: readonly string[]): Observable<Blob> {
    return this.told(this.http.post('/api/library/pack', { ids }, { responseType: 'blob' }));
  }

  importPack(body: ImportRequest): Observable<ImportAnswer> {
    return this.told(this.http.post<ImportAnswer>('/api/library/import', body));
  }

  importTokens(body: TokensRequest): Observable<TokensAnswer> {
    return this.told(this.http.post<TokensAnswer>('/api/library/tokens', body));
  }

  private told<T>(request: Observable<T>): Observable<T> {
    return request.pipe(catchError((error: unknown) => throwError(() => toProblem(error))));
  }
}
