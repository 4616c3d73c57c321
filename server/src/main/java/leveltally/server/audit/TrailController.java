package leveltally.server.audit;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Download;
import leveltally.server.frame.Needs;
import org.apache.commons.csv.CSVPrinter;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** The trail of every deed, as a whole and of one thing, to read and to take away. */
@RestController
@RequestMapping("/api/trail")
@Needs(Deed.READ_TRAIL)
class TrailController {
    private static final int PAGE = 100;
    private static final int MOST_OF_ONE = 500;
    private static final String LINES = "application/jsonl";

    /** Things whose trail everybody may read who may look at the things themselves. */
    private static final String THING =
            "(batch|vendor|invoice|check|import|offset|criteria|period|company|bank account|ledger account|series|payment|undoing|ledger file)"
                    + " [0-9-]+|routes|accounts";

    /** Facts that say an id, with the kind of thing it is the id of. */
    private static final Map<String, String> NAMED_BY_ID =
            Map.of("account", "bank account", "vendors", "vendor", "batch", "batch", "series", "series");

    private final TrailRows rows;
    private final JsonMapper json;

    TrailController(TrailRows rows, JsonMapper json) {
        this.rows = rows;
        this.json = json;
    }

    /** One thing a record says, such as what was before; {@code value} in words. */
    record TrailFact(String name, String value) {}

    /**
     * One record.
     *
     * @param subject what it was done to, of {@code kind} and {@code key}
     * @param name what the subject is called, where it has a name
     */
    record TrailView(
            long sequence,
            Instant at,
            String who,
            String from,
            String deed,
            String subject,
            String kind,
            String key,
            String name,
            List<TrailFact> facts,
            String hash) {}

    /** The records found, newest first, a page before the given one. */
    @GetMapping
    List<TrailView> page(
            @ParameterObject @ModelAttribute TrailRows.Filter filter,
            @RequestParam(required = false) @Nullable Long before) {
        return views(rows.page(filter, before, PAGE));
    }

    @GetMapping("/deeds")
    List<String> deeds() {
        return rows.deeds();
    }

    /** What was ever done to one thing, newest first. */
    @GetMapping("/of")
    @Needs(Deed.READ)
    List<TrailView> of(@RequestParam String subject) {
        if (!subject.matches(THING)) {
            throw Refusal.notFound("no-thing", "There is no trail of such a thing. Look at the whole trail.");
        }
        return views(rows.page(new TrailRows.Filter(null, null, subject, null, null, null), null, MOST_OF_ONE));
    }

    /** The records found as CSV, oldest first; the last row carries the head hash of the whole trail. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(@ParameterObject @ModelAttribute TrailRows.Filter filter) {
        return Csv.download("trail.csv", printer -> {
            printer.printRecord(
                    "sequence", "at", "person", "who", "from", "deed", "subject", "detail", "previous_hash", "hash");
            TrailRows.Head head = rows.each(
                    filter,
                    row -> print(
                            printer,
                            row.sequence(),
                            row.at(),
                            row.personId(),
                            row.person(),
                            row.origin(),
                            row.deed(),
                            row.subject(),
                            row.detail(),
                            row.previousHash(),
                            row.hash()));
            print(printer, head.records(), "", "", "", "", "head of the trail", "", "", "", head.hash());
        });
    }

    /** The same as JSON Lines, one record in a line; the last line is the head. */
    @GetMapping(value = "/jsonl", produces = LINES)
    ResponseEntity<Resource> lines(@ParameterObject @ModelAttribute TrailRows.Filter filter) {
        return Download.of("trail.jsonl", LINES, out -> {
            try (Writer writer = new OutputStreamWriter(out, StandardCharsets.UTF_8)) {
                TrailRows.Head head = rows.each(filter, row -> write(writer, whole(row)));
                write(writer, Map.of("head", head.hash(), "records", head.records()));
            }
        });
    }

    /** Everything the hash is made of, so that it can be reckoned again without us. */
    private static Map<String, Object> whole(TrailRows.Row row) {
        Map<String, Object> whole = new LinkedHashMap<>();
        whole.put("sequence", row.sequence());
        whole.put("at", row.at().toString());
        whole.put("person", row.personId());
        whole.put("who", row.person());
        whole.put("from", row.origin());
        whole.put("deed", row.deed());
        whole.put("subject", row.subject());
        whole.put("detail", row.detail());
        whole.put("previousHash", row.previousHash());
        whole.put("hash", row.hash());
        return whole;
    }

    private static void print(CSVPrinter printer, Object... cells) {
        try {
            for (Object cell : cells) {
                printer.print(Csv.harmless(String.valueOf(cell)));
            }
            printer.println();
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private void write(Writer writer, Map<String, Object> line) {
        try {
            writer.write(json.writeValueAsString(line));
            writer.write('\n');
        } catch (IOException broken) {
            throw new UncheckedIOException(broken);
        }
    }

    private List<TrailView> views(List<TrailRows.Row> found) {
        Map<Long, Map<String, Object>> told = new LinkedHashMap<>();
        Set<String> things = new HashSet<>();
        for (TrailRows.Row row : found) {
            Map<String, Object> detail = json.readValue(row.detail(), new TypeReference<>() {});
            told.put(row.sequence(), detail);
            things.add(row.subject());
            detail.forEach((name, value) -> ids(name, value).forEach(things::add));
        }
        Map<String, String> names = rows.names(things);
        return found.stream()
                .map(row -> view(row, told.get(row.sequence()), names))
                .toList();
    }

    private static TrailView view(TrailRows.Row row, Map<String, Object> told, Map<String, String> names) {
        int key = row.subject().lastIndexOf(' ');
        return new TrailView(
                row.sequence(),
                row.at(),
                row.person(),
                row.origin(),
                row.deed(),
                row.subject(),
                key < 0 ? row.subject() : row.subject().substring(0, key),
                row.subject().substring(key + 1),
                names.getOrDefault(row.subject(), ""),
                facts(told, names),
                row.hash());
    }

    /** The things a fact names by their ids, where it is of a kind that has names. */
    private static List<String> ids(String fact, @Nullable Object value) {
        String kind = NAMED_BY_ID.get(fact);
        if (kind == null) {
            return List.of();
        }
        List<?> values = value instanceof List<?> list ? list : value == null ? List.of() : List.of(value);
        return values.stream().map(id -> kind + " " + id).toList();
    }

    private static List<TrailFact> facts(Map<String, Object> told, Map<String, String> names) {
        List<TrailFact> facts = new ArrayList<>();
        // what was before stands before what came after it
        Object before = told.remove("before");
        Object after = told.remove("after");
        told.forEach((name, value) -> {
            List<String> things = ids(name, value);
            boolean known = !things.isEmpty() && things.stream().allMatch(names::containsKey);
            facts.add(new TrailFact(
                    name,
                    known ? String.join("; ", things.stream().map(names::get).toList()) : words(value)));
        });
        if (before != null) {
            facts.add(new TrailFact("before", words(before)));
        }
        if (after != null) {
            facts.add(new TrailFact("after", words(after)));
        }
        return facts;
    }

    private static String words(@Nullable Object value) {
        if (value instanceof List<?> list) {
            return String.join("; ", list.stream().map(TrailController::words).toList());
        }
        return String.valueOf(value);
    }
}
