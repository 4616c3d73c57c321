import { useQueryClient } from "@tanstack/react-query";
import { api, call, type Schemas } from "../api/client";
import { Button } from "../parts/Button";
import { Form } from "../parts/Form";
import { PictureEntry } from "../parts/PictureEntry";
import { useDeed } from "../parts/useDeed";
import { useKeptForm } from "../parts/useKeptForm";

const DOTS_PER_MM = 300 / 25.4;

/** The picture that a layout may draw beside the company's name. */
export function Logo({ company }: { company: Schemas["CompanyView"] }) {
  const queries = useQueryClient();
  const done = (now: Schemas["CompanyView"]) => queries.setQueryData(["company"], now);
  const set = (content: string) => call(api.POST("/api/company/logo", { body: { content } }));
  const form = useKeptForm("logo", { content: "" }, ({ content }) => set(content), {
    secret: ["content"],
    done,
    said: () => "Layouts with a place for the logo draw it from now on.",
  });
  const removing = useDeed(() => set(""), { done, said: () => "Nothing is drawn in its place from now on." });
  const { logo } = company;
  return (
    <section aria-label="Logo" className="mb-6">
      <h2 className="mb-2 text-base font-bold">Logo</h2>
      {logo ? (
        <>
          <img
            src={`/api/pictures/${logo.picture}`}
            alt={`The logo of ${company.name}`}
            className="border-hair mb-2 max-h-24 max-w-full border bg-white p-2"
          />
          <p className="text-faint mb-2">
            {logo.dots === 0
              ? "It is sharp at any size."
              : `It is sharp up to ${(logo.dots / DOTS_PER_MM).toFixed(0)} mm across, at 300 dots an inch.`}{" "}
            {company.mayChange && (
              <Button look="bare" disabled={removing.busy} onClick={() => void removing.run()}>
                Take it away
              </Button>
            )}
          </p>
        </>
      ) : (
        <p className="text-faint mb-2">
          None. A layout may have a place for one; checks are drawn without it until then.
        </p>
      )}
      {company.mayChange && (
        <Form form={form} label="Logo" deed="Use this picture" leave="Leave it as it was">
          <PictureEntry name="content" label={logo ? "Another, a PNG or SVG" : "A PNG or SVG"} />
        </Form>
      )}
    </section>
  );
}
