package leveltally.server.bankfiles;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.InputStream;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.Laid;
import leveltally.core.bankfiles.LayoutField;
import leveltally.core.bankfiles.LayoutRecord;
import leveltally.core.bankfiles.Sums;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.checks.BankEvents;
import leveltally.server.frame.Download;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the bank must hear, and the files that tell it. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class BankController {
    private static final int MOST_SHOWN = 300;

    private final BankFiles files;
    private final BankAnswers answers;
    private final FileRows rows;
    private final BankEvents events;

    BankController(BankFiles files, BankAnswers answers, FileRows rows, BankEvents events) {
        this.events = events;
        this.answers = answers;
        this.files = files;
        this.rows = rows;
    }

    record EventView(long event, String kind, String number, String payee, MoneyView amount, LocalDate date) {}

    /** A kind of record: header, detail or trailer, and what its fields are called. */
    record KindView(String words, List<String> fields) {}

    /** @param kind counted from 0; {@code ends} where each of its fields ends, counted in characters */
    record RecordView(String text, int kind, List<Integer> ends) {}

    record FindingView(int row, String field, String sentence) {}

    record PreviewView(
            String layout,
            int issues,
            MoneyView issued,
            int voids,
            MoneyView voided,
            List<EventView> events,
            List<RecordView> records,
            int recordCount,
            List<KindView> kinds,
            List<FindingView> findings,
            int heldBack,
            int staying) {}

    /** @param series null for all; {@code until} null for any day */
    record MakeFile(
            long account, @Nullable Long series, @Nullable LocalDate until) {}

    record TellAnew(long account, @NotNull @Size(max = 200) String why) {}

    record AnswerNote(@NotNull @Size(max = 300) String note) {}

    /** @param refused of a file it took: a line for each event, its number first, then what the bank said */
    record TakenFile(
            @NotNull @Size(max = 300) String note,
            @Nullable @Size(max = 50_000) String refused) {}

    @GetMapping("/bank-files/preview")
    PreviewView preview(
            Actor by,
            @RequestParam long account,
            @RequestParam(required = false) @Nullable Long series,
            @RequestParam(required = false) @Nullable LocalDate until) {
        by.mayDo(Deed.READ);
        return view(files.preview(new BankAccountId(account), by.today(), new Narrowed(series, until)));
    }

    /** What a file would hold. */
    static PreviewView view(BankFiles.Draft draft) {
        Sums sums = draft.going().sums();
        BankFile file = draft.file();
        return new PreviewView(
                draft.layout().name(),
                sums.issues(),
                MoneyView.of(sums.issued()),
                sums.voids(),
                MoneyView.of(sums.voided()),
                draft.shown().stream().map(BankController::view).toList(),
                file.records().stream()
                        .limit(MOST_SHOWN)
                        .map(record -> view(record, draft))
                        .toList(),
                file.records().size()
                        + draft.going().ids().length
                        - draft.shown().size(),
                draft.layout().records().stream().map(BankController::view).toList(),
                file.findings().stream()
                        .limit(MOST_SHOWN)
                        .map(f -> new FindingView(f.row(), f.field(), f.sentence()))
                        .toList(),
                draft.going().heldBack(),
                draft.going().staying());
    }

    /** The account number is shown by its last four digits only. */
    private static String masked(String record, BankFiles.Draft draft) {
        String number = draft.about().accountNumber();
        int keep = Math.min(4, number.length());
        return record.replace(number, "•".repeat(number.length() - keep) + number.substring(number.length() - keep));
    }

    private static EventView view(WaitingEvents.Told waiting) {
        BankFile.Item item = waiting.item();
        return new EventView(
                waiting.event(),
                item.kind().name(),
                item.printed(),
                item.payee(),
                MoneyView.of(item.amount()),
                item.date());
    }

    private static KindView view(LayoutRecord record) {
        return new KindView(
                record.place().words(),
                record.fields().stream().map(LayoutField::name).toList());
    }

    private static RecordView view(Laid record, BankFiles.Draft draft) {
        return new RecordView(
                masked(record.text(), draft),
                record.kind(),
                record.spans().stream().map(Laid.Span::to).toList());
    }

    @GetMapping("/bank-files")
    List<FileView> list(Actor by, @RequestParam long account) {
        by.mayDo(Deed.READ);
        return rows.of(new BankAccountId(account));
    }

    @PostMapping("/bank-files")
    @Needs(Deed.MAKE_BANK_FILE)
    FileMade make(Actor by, @RequestBody MakeFile wanted) {
        return new FileMade(
                files.make(by, new BankAccountId(wanted.account()), new Narrowed(wanted.series(), wanted.until())));
    }

    /** Tells again of every check that is out, on the bank's request. */
    @PostMapping("/bank-files/anew")
    @Needs(Deed.MAKE_BANK_FILE)
    FileMade tellAnew(Actor by, @Valid @RequestBody TellAnew wanted) {
        return new FileMade(files.tellAnew(by, new BankAccountId(wanted.account()), wanted.why()));
    }

    record NeverReported(
            long account,
            @NotNull @Size(max = 500) List<Long> events,
            @NotNull @Size(max = 300) String why) {}

    /** Closes what waits: the bank is never told of it. */
    @PostMapping("/bank-events/never-report")
    @Needs(Deed.MAKE_BANK_FILE)
    void neverReport(Actor by, @Valid @RequestBody NeverReported wanted) {
        events.neverReport(by, new BankAccountId(wanted.account()), wanted.events(), wanted.why());
    }

    record FileMade(long id) {}

    @GetMapping("/bank-files/{id}/content")
    @Needs(Deed.MAKE_BANK_FILE)
    ResponseEntity<Resource> content(Actor by, @PathVariable long id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        return Download.of(files.made(id).name(), "application/octet-stream", out -> {
            try (InputStream content = files.open(id)) {
                content.transferTo(out);
            }
        });
    }

    @PostMapping("/bank-files/{id}/accepted")
    @Needs(Deed.MAKE_BANK_FILE)
    void accepted(Actor by, @PathVariable long id, @Valid @RequestBody TakenFile answer) {
        answers.accepted(
                by,
                id,
                answer.note(),
                (answer.refused() == null ? "" : answer.refused())
                        .lines()
                        .filter(line -> !line.isBlank())
                        .map(line -> line.strip().split("\\s+", 2))
                        .map(parts -> new BankAnswers.RefusedItem(parts[0], parts.length > 1 ? parts[1] : ""))
                        .toList());
    }

    @PostMapping("/bank-files/{id}/refused")
    @Needs(Deed.MAKE_BANK_FILE)
    void refused(Actor by, @PathVariable long id, @Valid @RequestBody AnswerNote answer) {
        answers.refused(by, id, answer.note());
    }
}
