import { useSearchParams } from "react-router";

/** The words that the rows of a list must hold, in the address like any other narrowing. */
export function useHolding(list: string): [string, (words: string) => void] {
  const [params, setParams] = useSearchParams();
  const name = `${list}-holds`;
  const set = (words: string) =>
    setParams(
      (now) => {
        if (words) now.set(name, words);
        else now.delete(name);
        return now;
      },
      { replace: true },
    );
  return [params.get(name) ?? "", set];
}
