package leveltally.server.bankfiles;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.bankfiles.Layout;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
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
    private final BankFiles files;
    private final FileRows rows;

    BankController(BankFiles files, FileRows rows) {
        this.files = files;
        this.rows = rows;
    }

    record EventView(long event, String kind, long number, String payee, MoneyView amount, LocalDate date) {}

    record ColumnView(String name, int from, int to) {}

    record FindingView(int row, String field, String sentence) {}

    record PreviewView(
            String layout,
            int issues,
            MoneyView issued,
            int voids,
            MoneyView voided,
            List<EventView> events,
            List<String> records,
            List<ColumnView> columns,
            List<FindingView> findings,
            int heldBack) {}

    record MakeFile(long account) {}

    record AnswerNote(@NotNull @Size(max = 300) String note) {}

    @GetMapping("/bank-files/preview")
    PreviewView preview(Actor by, @RequestParam long account) {
        by.mayDo(Deed.READ);
        BankFiles.Draft draft = files.preview(new BankAccountId(account), by.today());
        List<BankFile.Item> items =
                draft.waiting().stream().map(BankFiles.Waiting::item).toList();
        var issued = BankFile.Sums.of(
                BankFile.Item.Kind.ISSUE, items, draft.account().currency());
        var voided =
                BankFile.Sums.of(BankFile.Item.Kind.VOID, items, draft.account().currency());
        return new PreviewView(
                draft.layout().name(),
                issued.count(),
                MoneyView.of(issued.total()),
                voided.count(),
                MoneyView.of(voided.total()),
                draft.waiting().stream().map(BankController::view).toList(),
                draft.file().records().stream().map(r -> masked(r, draft)).toList(),
                columns(draft.layout()),
                draft.file().findings().stream()
                        .map(f -> new FindingView(f.row(), f.field(), f.sentence()))
                        .toList(),
                draft.heldBack());
    }

    /** The account number is shown by its last four digits only. */
    private static String masked(String record, BankFiles.Draft draft) {
        String number = draft.account().accountNumber();
        int keep = Math.min(4, number.length());
        return record.replace(number, "•".repeat(number.length() - keep) + number.substring(number.length() - keep));
    }

    private static EventView view(BankFiles.Waiting waiting) {
        BankFile.Item item = waiting.item();
        return new EventView(
                waiting.event(),
                item.kind().name(),
                item.number(),
                item.payee(),
                MoneyView.of(item.amount()),
                item.date());
    }

    private static List<ColumnView> columns(Layout layout) {
        List<ColumnView> columns = new ArrayList<>();
        int from = 1;
        for (Layout.Field field : layout.detail()) {
            columns.add(new ColumnView(field.name(), from, from + field.width() - 1));
            from += field.width();
        }
        return columns;
    }

    @GetMapping("/bank-files")
    List<FileView> list(Actor by, @RequestParam long account) {
        by.mayDo(Deed.READ);
        return rows.of(new BankAccountId(account));
    }

    @PostMapping("/bank-files")
    @Needs(Deed.MAKE_BANK_FILE)
    FileMade make(Actor by, @RequestBody MakeFile wanted) {
        return new FileMade(files.make(by, new BankAccountId(wanted.account())));
    }

    record FileMade(long id) {}

    @GetMapping("/bank-files/{id}/content")
    @Needs(Deed.MAKE_BANK_FILE)
    ResponseEntity<byte[]> content(Actor by, @PathVariable long id) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        BankFiles.Content content = files.content(id);
        return ResponseEntity.ok()
                .header("Content-Type", "application/octet-stream")
                .header("Content-Disposition", "attachment; filename=\"" + content.name() + "\"")
                .body(content.bytes());
    }

    @PostMapping("/bank-files/{id}/accepted")
    @Needs(Deed.MAKE_BANK_FILE)
    void accepted(Actor by, @PathVariable long id, @Valid @RequestBody AnswerNote answer) {
        files.accepted(by, id, answer.note());
    }

    @PostMapping("/bank-files/{id}/refused")
    @Needs(Deed.MAKE_BANK_FILE)
    void refused(Actor by, @PathVariable long id, @Valid @RequestBody AnswerNote answer) {
        files.refused(by, id, answer.note());
    }
}
