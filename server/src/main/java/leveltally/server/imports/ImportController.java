package leveltally.server.imports;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import leveltally.core.imports.Column;
import leveltally.core.money.DecimalMark;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import leveltally.server.people.People;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;
import tools.jackson.databind.json.JsonMapper;

/** Files to bring in: sent, checked, brought in, with progress that anybody may look at. */
@RestController
@RequestMapping("/api/imports")
@Needs(Deed.READ)
class ImportController {
    private static final int PAGE = 500;

    private final Imports imports;
    private final People people;
    private final JsonMapper json;

    ImportController(Imports imports, People people, JsonMapper json) {
        this.imports = imports;
        this.people = people;
        this.json = json;
    }

    record ImportView(
            long id,
            String kind,
            String fileName,
            String state,
            String stateWords,
            boolean running,
            String by,
            Instant at,
            long bytes,
            int rows,
            int good,
            int refused,
            int duplicates,
            int broughtIn,
            List<String> headers,
            Map<String, String> columns,
            DecimalMark mark,
            @Nullable LocalDate ledgerDate,
            @Nullable String account,
            @Nullable String trouble) {}

    record ImportRowView(
            int line, String place, String outcome, String column, String reason, String identity, String amount) {}

    /** A sender nobody knows; {@code sender} names it within its file. */
    record UnknownSenderView(int sender, String name, int documents) {}

    record ImportColumnView(String name, boolean required, String about, String example) {}

    record SentView(long id) {}

    record BringInWanted(boolean onlyGood) {}

    record FileChoices(
            @Nullable @Size(max = 60) Map<String, String> columns,
            @Nullable DecimalMark mark,
            @Nullable LocalDate ledgerDate,
            @Nullable @Size(max = 12) String account) {}

    record SenderKnown(int sender, long vendor) {}

    private record Upload(MultipartFile file) implements Imports.Sent {
        @Override
        public String name() {
            String name = file.getOriginalFilename();
            return name == null ? "file" : name;
        }

        @Override
        public InputStream open() throws IOException {
            return file.getInputStream();
        }
    }

    @GetMapping
    List<ImportView> list(Actor by) {
        by.mayDo(Deed.READ);
        Map<Long, String> names = people.names();
        return imports.recent().stream().map(job -> view(job, names)).toList();
    }

    @GetMapping("/{id}")
    ImportView one(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return view(imports.get(id), people.names());
    }

    @PostMapping(consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @Needs(Deed.ENTER_INVOICE)
    SentView send(Actor by, @RequestParam ImportKind kind, @RequestPart("file") List<MultipartFile> file)
            throws IOException {
        return new SentView(
                imports.take(by, kind, file.stream().map(Upload::new).toList()));
    }

    /** Rows with an outcome, a page after a line. */
    @GetMapping("/{id}/rows")
    List<ImportRowView> rows(
            Actor by,
            @PathVariable long id,
            @RequestParam(required = false) String outcome,
            @RequestParam(defaultValue = "0") int after) {
        by.mayDo(Deed.READ);
        return imports.rows(id, outcome, after, PAGE).stream()
                .map(row -> new ImportRowView(
                        row.line(),
                        row.place(),
                        row.outcome(),
                        row.column(),
                        row.reason(),
                        row.identity(),
                        row.amount()))
                .toList();
    }

    @GetMapping(value = "/{id}/refused/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> refused(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return Csv.answer(
                "refused-" + id + ".csv",
                List.of("row", "column", "reason", "what"),
                imports.rows(id, "REFUSED", 0, 1_000_000).stream()
                        .map(row -> List.of(row.place(), row.column(), row.reason(), row.identity())));
    }

    /** How the whole file is read; it is checked again. */
    @PostMapping("/{id}/choices")
    @Needs(Deed.ENTER_INVOICE)
    ImportView choose(Actor by, @PathVariable long id, @Valid @RequestBody FileChoices chosen) {
        imports.choose(by, id, new Choices(chosen.columns(), chosen.mark(), chosen.ledgerDate(), chosen.account()));
        return one(by, id);
    }

    @GetMapping("/{id}/senders")
    List<UnknownSenderView> senders(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return imports.unknownSenders(id).stream()
                .map(one -> new UnknownSenderView(one.position(), one.party().name(), one.documents()))
                .toList();
    }

    /** Whose documents these are: asked once, and remembered. */
    @PostMapping("/{id}/senders")
    @Needs(Deed.ENTER_INVOICE)
    ImportView sender(Actor by, @PathVariable long id, @Valid @RequestBody SenderKnown known) {
        imports.belongsTo(by, id, known.sender(), known.vendor());
        return one(by, id);
    }

    @PostMapping("/{id}/bring-in")
    @Needs(Deed.ENTER_INVOICE)
    ImportView bringIn(Actor by, @PathVariable long id, @RequestBody BringInWanted wanted) {
        imports.bringIn(by, id, wanted.onlyGood());
        return one(by, id);
    }

    @PostMapping("/{id}/discard")
    @Needs(Deed.ENTER_INVOICE)
    ImportView discard(Actor by, @PathVariable long id) {
        imports.discard(by, id);
        return one(by, id);
    }

    /** The documented columns of a file. */
    @GetMapping("/columns/{kind}")
    List<ImportColumnView> columns(Actor by, @PathVariable ImportKind kind) {
        by.mayDo(Deed.READ);
        return described(kind).stream()
                .map(c -> new ImportColumnView(c.name(), c.required(), c.about(), c.example()))
                .toList();
    }

    /** A file with the columns and one row to begin from. */
    @GetMapping(value = "/sample/{kind}", produces = Csv.TYPE)
    ResponseEntity<Resource> sample(Actor by, @PathVariable ImportKind kind) {
        by.mayDo(Deed.READ);
        return Csv.answer(
                kind == ImportKind.VENDORS ? "vendors.csv" : "invoices.csv",
                described(kind).stream().map(Column::name).toList(),
                Stream.of(described(kind).stream().map(Column::example).toList()));
    }

    private static List<Column> described(ImportKind kind) {
        return kind == ImportKind.VENDORS ? Column.VENDORS : Column.INVOICES;
    }

    private ImportView view(ImportJobEntity job, Map<Long, String> names) {
        Choices choices = json.readValue(job.choices, Choices.class);
        return new ImportView(
                job.id,
                job.kind.name(),
                job.fileName,
                job.state.name(),
                job.state.words(),
                job.state.isRunning(),
                names.getOrDefault(job.personId, "Somebody"),
                job.madeAt,
                job.bytes,
                job.rowsRead,
                job.good,
                job.refused,
                job.duplicates,
                job.broughtIn,
                job.headers == null ? List.of() : List.of(json.readValue(job.headers, String[].class)),
                choices.chosenColumns(),
                choices.reading().mark(),
                choices.ledgerDate(),
                choices.account(),
                job.trouble);
    }
}
