package leveltally.server.bankfiles;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.bankfiles.FieldTry;
import leveltally.core.bankfiles.Layout;
import leveltally.core.bankfiles.LayoutCheck;
import leveltally.core.bankfiles.SampleLine;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The layouts of bank files: looked at, tried on what waits, kept. */
@RestController
@RequestMapping("/api/bank-layouts")
@Needs(Deed.READ)
class BankLayoutController {
    private static final int LONGEST = 200_000;

    private final BankLayouts layouts;
    private final BankFiles files;

    BankLayoutController(BankLayouts layouts, BankFiles files) {
        this.layouts = layouts;
        this.files = files;
    }

    record BankLayoutText(String text) {}

    record TriedBankLayout(
            long account, @NotNull @Size(max = LONGEST) String text) {}

    record KeptBankLayout(@NotNull @Size(max = LONGEST) String text) {}

    /** @param record counted from 1, 0 for the file; {@code field} from 1, 0 for the record */
    record WrongPart(int record, int field, String sentence) {}

    /**
     * What a layout would make of what waits.
     *
     * @param wrong what is wrong with it whatever it is used on
     * @param fileName how the next file would be called; empty while something is wrong
     * @param preview null while something is wrong
     */
    record TriedBankLayoutView(List<WrongPart> wrong, String fileName, BankController.@Nullable PreviewView preview) {}

    @GetMapping
    List<BankLayouts.BankLayoutVersion> all(Actor by) {
        by.mayDo(Deed.READ);
        return layouts.all();
    }

    @GetMapping("/{id}")
    BankLayoutText text(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return new BankLayoutText(layouts.text(id));
    }

    /** Tries a layout as it stands on the page; keeps nothing. */
    @PostMapping("/try")
    @Needs(Deed.READ)
    TriedBankLayoutView tried(Actor by, @Valid @RequestBody TriedBankLayout wanted) {
        by.mayDo(Deed.READ);
        Layout layout = layouts.read(wanted.text());
        List<WrongPart> wrong = LayoutCheck.of(layout).stream()
                .map(one -> new WrongPart(one.record(), one.field(), BankLayouts.inWords(layout, one)))
                .toList();
        // only what the bank is told of checks can be tried on what waits
        if (!wrong.isEmpty() || layout.use() != Layout.Use.POSITIVE_PAY) {
            return new TriedBankLayoutView(wrong, "", null);
        }
        BankFiles.Draft draft = files.tried(new BankAccountId(wanted.account()), layout, by.today());
        return new TriedBankLayoutView(
                List.of(),
                leveltally.core.bankfiles.FileName.of(layout.fileName(), draft.about()),
                BankController.view(draft));
    }

    /** A field of the layout, counted from 1 within its record, tried with a value. */
    record TriedField(
            @NotNull @Size(max = LONGEST) String text,
            long account,
            int record,
            int field,
            @NotNull @Size(max = 400) String value) {}

    @PostMapping("/try-field")
    @Needs(Deed.READ)
    FieldTry tried(Actor by, @Valid @RequestBody TriedField wanted) {
        by.mayDo(Deed.READ);
        return layouts.tried(
                layouts.read(wanted.text()),
                new BankAccountId(wanted.account()),
                wanted.record(),
                wanted.field(),
                wanted.value());
    }

    record LaidSample(
            @NotNull @Size(max = LONGEST) String text,
            long account,
            @NotNull @Size(max = LONGEST) String sample) {}

    /** Lays a bank's own sample over a layout. */
    @PostMapping("/sample")
    @Needs(Deed.READ)
    List<SampleLine> sample(Actor by, @Valid @RequestBody LaidSample wanted) {
        by.mayDo(Deed.READ);
        return layouts.over(layouts.read(wanted.text()), new BankAccountId(wanted.account()), wanted.sample());
    }

    /** What waits as a file for the bank to try, marked as such. */
    @PostMapping(value = "/test-file", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    @Needs(Deed.SET_BANK_ACCOUNT)
    ResponseEntity<byte[]> test(Actor by, @Valid @RequestBody TriedBankLayout wanted) {
        BankFiles.Content content = files.test(by, new BankAccountId(wanted.account()), layouts.whole(wanted.text()));
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"" + content.name() + "\"")
                .body(content.bytes());
    }

    @PostMapping
    @Needs(Deed.SET_BANK_ACCOUNT)
    BankLayouts.BankLayoutVersion keep(Actor by, @Valid @RequestBody KeptBankLayout wanted) {
        return layouts.keep(by, wanted.text());
    }
}
