package leveltally.server.electronic;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.bankfiles.FilesByHand;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Files for the payments of a batch. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class FilingController {
    private static final int MOST = 10_000;
    private static final int MOST_LISTED = 500;

    private final Filing filing;
    private final FilingViews views;
    private final FilesByHand byHand;
    private final TakingOutOfFiles takingOut;
    private final PaymentFileRows files;

    FilingController(
            Filing filing, FilingViews views, FilesByHand byHand, TakingOutOfFiles takingOut, PaymentFileRows files) {
        this.filing = filing;
        this.views = views;
        this.byHand = byHand;
        this.takingOut = takingOut;
        this.files = files;
    }

    /** @param claims the payments that go now; empty for all that can */
    record FileWanted(@NotNull @Size(max = MOST) List<@NotNull Long> claims) {}

    record OutOfFiles(
            @NotEmpty @Size(max = MOST) List<@NotNull Long> claims,
            @NotNull @Size(max = 300) String why) {}

    /** The files of payments of an account: all the bank has not answered, and the newest of the others. */
    @GetMapping("/payment-files")
    List<PaymentFileRows.ListedFile> files(Actor by, @RequestParam long account) {
        by.mayDo(Deed.READ);
        return files.ofAccount(new BankAccountId(account), MOST_LISTED);
    }

    @GetMapping("/batches/{id}/filing")
    FilingView view(Actor by, @PathVariable long id) {
        return views.of(by, new BatchId(id));
    }

    /** Makes files of what waits for one, and answers how it stands then. */
    @PostMapping("/batches/{id}/filing")
    @Needs(Deed.MAKE_BANK_FILE)
    FilingView file(Actor by, @PathVariable long id, @Valid @RequestBody FileWanted wanted) {
        filing.file(by, new BatchId(id), claims(wanted.claims()));
        return views.of(by, new BatchId(id));
    }

    /** Makes a file that announces accounts to which nothing was paid yet, and answers how it stands then. */
    @PostMapping("/batches/{id}/filing/announce")
    @Needs(Deed.MAKE_BANK_FILE)
    FilingView announce(Actor by, @PathVariable long id) {
        filing.announce(by, new BatchId(id));
        return views.of(by, new BatchId(id));
    }

    /** Takes payments out that stand in no file. */
    @PostMapping("/batches/{id}/filing/take-out")
    @Needs(Deed.PRINT)
    FilingView takeOut(Actor by, @PathVariable long id, @Valid @RequestBody OutOfFiles wanted) {
        takingOut.takeOut(by, new BatchId(id), claims(wanted.claims()), wanted.why());
        return views.of(by, new BatchId(id));
    }

    /** Somebody takes the file to hand it over. */
    @PostMapping("/bank-files/{id}/handed")
    @Needs(Deed.MAKE_BANK_FILE)
    void handed(Actor by, @PathVariable long id) {
        byHand.handed(by, id);
    }

    private static Set<ClaimId> claims(List<Long> ids) {
        return ids.stream().map(ClaimId::new).collect(Collectors.toSet());
    }
}
