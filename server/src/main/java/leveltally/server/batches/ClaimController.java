package leveltally.server.batches;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where the payment of a claim goes, what its stub says, which credits reduce it. */
@RestController
@RequestMapping("/api/batches")
@Needs(Deed.READ)
class ClaimController {
    private final Drafting drafting;
    private final ClaimCredits credits;
    private final Moving moving;
    private final BatchViews views;

    ClaimController(Drafting drafting, ClaimCredits credits, BatchViews views, Moving moving) {
        this.moving = moving;
        this.drafting = drafting;
        this.credits = credits;
        this.views = views;
    }

    record SendTo(long version, long remitTo) {}

    record StubNote(long version, @NotNull @Size(max = 500) String note) {}

    record CreditsUsed(
            long version, @NotNull @Size(max = 500) List<Long> credits) {}

    @GetMapping("/{id}/claims/{claim}/choices")
    ChoicesView choices(Actor by, @PathVariable long id, @PathVariable long claim) {
        by.mayDo(Deed.READ);
        return credits.choices(new BatchId(id), new ClaimId(claim));
    }

    @PostMapping("/{id}/claims/{claim}/remit-to")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView sendTo(
            Actor by, @PathVariable long id, @PathVariable long claim, @RequestBody SendTo wanted) {
        drafting.sendTo(by, new BatchId(id), wanted.version(), new ClaimId(claim), wanted.remitTo());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/claims/{claim}/note")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView note(
            Actor by, @PathVariable long id, @PathVariable long claim, @Valid @RequestBody StubNote wanted) {
        drafting.note(by, new BatchId(id), wanted.version(), new ClaimId(claim), wanted.note());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/claims/{claim}/credits")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView credits(
            Actor by, @PathVariable long id, @PathVariable long claim, @Valid @RequestBody CreditsUsed wanted) {
        credits.useCredits(
                by,
                new BatchId(id),
                wanted.version(),
                new ClaimId(claim),
                wanted.credits().stream().map(InvoiceId::new).toList());
        return views.of(new BatchId(id));
    }

    /** {@code into} is a draft of that way; null for a new one. */
    record MoveTo(
            long version, long account, long way, @Nullable Long into) {}

    /** The other ways by which a payment could go. */
    @GetMapping("/{id}/claims/{claim}/ways")
    List<Moving.WayInstead> ways(Actor by, @PathVariable long id, @PathVariable long claim) {
        by.mayDo(Deed.READ);
        return moving.ways(by, new BatchId(id), new ClaimId(claim));
    }

    /** Moves a payment to another way; answers the batch it stands in then. */
    @PostMapping("/{id}/claims/{claim}/way")
    @Needs(Deed.EDIT_BATCH)
    long move(Actor by, @PathVariable long id, @PathVariable long claim, @Valid @RequestBody MoveTo wanted) {
        Long into = wanted.into();
        return moving.move(
                        by,
                        new BatchId(id),
                        wanted.version(),
                        new ClaimId(claim),
                        new Moving.To(
                                new BankAccountId(wanted.account()),
                                new WayId(wanted.way()),
                                into == null ? null : new BatchId(into)))
                .value();
    }

    @PostMapping("/{id}/release-credits")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView releaseCredits(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        credits.releaseCredits(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }
}
