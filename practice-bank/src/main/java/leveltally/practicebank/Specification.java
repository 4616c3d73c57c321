package leveltally.practicebank;

import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * How a company's files are written, taken from their description ({@code level-tally bank layout 1}).
 *
 * @param separator 0 for records of fixed widths
 * @param escape NONE, DOUBLED or BACKSLASH
 * @param between whether something stands between the records
 */
record Specification(
        String name, Charset charset, boolean between, char separator, char quote, String escape, List<Kind> kinds) {

    /** A kind of record: HEADER, DETAIL or TRAILER; a detail tells of BOTH, of ISSUES or of VOIDS. */
    record Kind(String place, String tells, List<Part> parts) {
        int width() {
            return parts.stream().mapToInt(Part::width).sum();
        }
    }

    /** A field: {@code meant} from what stands there to what it means, {@code others} whether anything else stands for one more. */
    record Part(
            String name,
            String source,
            String value,
            int width,
            boolean right,
            char fill,
            String decimals,
            Map<String, String> meant,
            String others) {}

    static Specification of(String description) {
        JsonNode tree = new JsonMapper().readTree(description);
        String separator = tree.get("separator").asString();
        List<Kind> kinds = new ArrayList<>();
        for (JsonNode record : tree.get("records")) {
            List<Part> parts = new ArrayList<>();
            record.get("fields").forEach(field -> parts.add(part(field)));
            kinds.add(
                    new Kind(record.get("place").asString(), record.get("tells").asString(), List.copyOf(parts)));
        }
        return new Specification(
                tree.get("name").asString(),
                Charset.forName(tree.get("encoding").asString()),
                !tree.get("lineEnd").asString().equals("NONE"),
                separator.isEmpty() ? 0 : separator.charAt(0),
                separator.isEmpty() ? 0 : tree.get("quote").asString().charAt(0),
                tree.get("escape").asString(),
                List.copyOf(kinds));
    }

    private static Part part(JsonNode field) {
        JsonNode by = field.get("substitutions");
        Map<String, String> meant = new HashMap<>();
        by.get("values").properties().forEach(one -> meant.put(one.getValue().asString(), one.getKey()));
        return new Part(
                field.get("name").asString(),
                field.get("source").asString(),
                field.get("value").asString(),
                field.get("width").asInt(),
                field.get("align").asString().equals("RIGHT"),
                field.get("fill").asString().charAt(0),
                field.get("decimals").asString(),
                Map.copyOf(meant),
                by.get("missing").asString().equals("OTHER") ? by.get("other").asString() : "");
    }
}
