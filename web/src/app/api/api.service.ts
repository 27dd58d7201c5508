import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import {
  headerOf,
  unpackScene,
  type CreateItem,
  type CreateScene,
  type ErrorAnswer,
  type ImportAnswer,
  type ImportRequest,
  type LabelItems,
  type Layer,
  type LibraryDetail,
  type LibraryEntry,
  type MoveDraft,
  type PackedScene,
  type RunRecord,
  type SaveDraft,
  type SaveRequest,
  type SceneSummary,
  type StoredScene,
  type TokensAnswer,
  type TokensRequest,
} from '@wexikine/core';
import {
  catchError,
  concatMap,
  endWith,
  from,
  ignoreElements,
  map,
  switchMap,
  throwError,
  type Observable,
} from 'rxjs';
import { isLarge, partsOf } from './scene-parts';
import { sceneAddress } from './scene-address';

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
    const packed$ = this.http.get<PackedScene>(sceneAddress(id));
    return this.told(packed$.pipe(map(unpackScene)));
  }

  /** Creates a scene; a large one is sent in parts. */
  createScene({ scene, by }: CreateScene): Observable<StoredScene> {
    if (!isLarge(scene.layers, scene.runs)) {
      return this.told(this.http.post<StoredScene>('/api/scenes', { scene, by }));
    }
    const created$ = this.upload(scene.layers, scene.runs).pipe(
      switchMap((upload) => {
        const order = scene.layers.map(({ id }) => id);
        const body = { header: headerOf(scene), order, runOrder: scene.runs.map(({ id }) => id), upload, by };
        return this.http.post<{ id: string; version: number }>('/api/scenes/from-parts', body);
      }),
      map(({ id, version }) => ({ version, scene: { ...scene, id } })),
    );
    return this.told(created$);
  }

  /** Saves what changed; much of it is sent in parts, which count only with the last request. */
  saveScene(id: string, body: SaveRequest): Observable<{ version: number }> {
    const put = (content: SaveRequest): Observable<{ version: number }> =>
      this.http.put<{ version: number }>(`/api/scenes/${encodeURIComponent(id)}`, content);
    if (!isLarge(body.layers, body.runs)) return this.told(put(body));
    return this.told(
      this.upload(body.layers, body.runs).pipe(switchMap((upload) => put({ ...body, layers: [], runs: [], upload }))),
    );
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

  private upload(layers: readonly Layer[], runs: readonly RunRecord[]): Observable<{ id: string; parts: number }> {
    const id = crypto.randomUUID();
    const parts = partsOf(layers, runs);
    return from(parts).pipe(
      concatMap((part, i) => this.http.put(`/api/scenes/uploads/${id}/${i}`, part())),
      ignoreElements(),
      endWith({ id, parts: parts.length }),
    );
  }

  private told<T>(request: Observable<T>): Observable<T> {
    return request.pipe(catchError((error: unknown) => throwError(() => toProblem(error))));
  }
}
