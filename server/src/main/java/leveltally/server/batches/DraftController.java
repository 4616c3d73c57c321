package leveltally.server.batches;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Gathering;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Decision;
import leveltally.server.frame.Needs;
import leveltally.server.selection.DueQuestion;
import leveltally.server.vendors.Place;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The deeds of the bench: each saves one edit and answers with the batch as it is then. */
@RestController
@RequestMapping("/api/batches")
@Needs(Deed.READ)
class DraftController {
    private final Drafting drafting;
    private final BatchViews views;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Vendors vendors;

    DraftController(Drafting drafting, BatchViews views, Batches batches, ClaimRows claimRows, Vendors vendors) {
        this.drafting = drafting;
        this.views = views;
        this.batches = batches;
        this.claimRows = claimRows;
        this.vendors = vendors;
    }

    record MakeBatch(
            @NotNull @Size(min = 1, max = 80) String name,
            @NotNull @Size(max = 500) String note,
            int expectedCount,
            @NotNull @Size(max = 40) String expectedToPay,
            @NotNull DueQuestion question,
            @Nullable Long criteria) {}

    @Schema(requiredProperties = "id")
    record MadeView(long id) {}

    record Versioned(long version) {}

    record DraftLines(
            long version, @NotEmpty @Size(max = 20_000) List<Long> invoices) {
        Set<InvoiceId> ids() {
            return invoices.stream().map(InvoiceId::new).collect(Collectors.toCollection(java.util.LinkedHashSet::new));
        }
    }

    /** {@code cash} null pays all of it. */
    record PayLine(long version, @Nullable String cash) {}

    record ShowLines(
            long version, @NotEmpty @Size(max = 20_000) List<Long> invoices, boolean onStub) {}

    record SendTo(long version, long remitTo) {}

    record StubNote(long version, @NotNull @Size(max = 500) String note) {}

    record CreditsUsed(
            long version, @NotNull @Size(max = 500) List<Long> credits) {}

    @Schema(requiredProperties = {"invoice", "reference", "payee", "open"})
    record GatheredView(long invoice, String reference, String payee, String open) {}

    @Schema(requiredProperties = {"invoice", "why"})
    record RemovedView(long invoice, String why) {}

    /** {@code shown} is handed back with the deed, so that just this difference is applied. */
    @Schema(requiredProperties = {"added", "removed", "shown"})
    record GatheringView(List<GatheredView> added, List<RemovedView> removed, String shown) {}

    record GatherAgain(
            long version, @NotNull @Size(max = 64) String shown) {}

    @Schema(requiredProperties = {"id", "address"})
    record RemitToChoice(long id, String address) {}

    @Schema(requiredProperties = {"id", "reference", "date", "open", "used"})
    record CreditChoice(long id, String reference, LocalDate date, String open, boolean used) {}

    /** Where the payment of a claim could go, and which credits could reduce it. */
    @Schema(requiredProperties = {"addresses", "credits"})
    record ChoicesView(List<RemitToChoice> addresses, List<CreditChoice> credits) {}

    @Schema(requiredProperties = {"count", "settles", "discount", "pays"})
    record LinesTotal(int count, String settles, String discount, String pays) {}

    /** What the selected lines come to; the browser adds nothing up. */
    @GetMapping("/{id}/total")
    LinesTotal total(Actor by, @PathVariable long id, @RequestParam String selected) {
        by.mayDo(Deed.READ);
        Set<InvoiceId> wanted = leveltally.server.selection.EntryRanges.read(selected);
        List<leveltally.core.batches.ClaimLine> lines = claimRows.of(new BatchId(id)).stream()
                .flatMap(claim -> claim.lines().stream())
                .filter(line -> line.item().filter(wanted::contains).isPresent())
                .toList();
        if (lines.isEmpty()) {
            return new LinesTotal(0, "0", "0", "0");
        }
        var currency = lines.get(0).cash().currency();
        return new LinesTotal(
                lines.size(),
                Money.sum(lines.stream().map(l -> l.gross()).toList(), currency).toString(),
                Money.sum(lines.stream().map(l -> l.discount()).toList(), currency)
                        .toString(),
                Money.sum(lines.stream().map(l -> l.cash()).toList(), currency).toString());
    }

    @PostMapping
    @Needs(Deed.EDIT_BATCH)
    MadeView make(Actor by, @Valid @RequestBody MakeBatch wanted) {
        NewBatch batch = new NewBatch(
                wanted.name(),
                wanted.note(),
                wanted.expectedCount(),
                wanted.expectedToPay(),
                wanted.question(),
                wanted.criteria());
        return new MadeView(drafting.make(by, batch).value());
    }

    @PostMapping("/{id}/lines")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView add(Actor by, @PathVariable long id, @Valid @RequestBody DraftLines wanted) {
        drafting.add(by, new BatchId(id), wanted.version(), List.copyOf(wanted.ids()));
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/take-out")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView takeOut(Actor by, @PathVariable long id, @Valid @RequestBody DraftLines wanted) {
        drafting.takeOut(by, new BatchId(id), wanted.version(), wanted.ids());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/clear")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView clear(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        drafting.clear(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/lines/{invoice}/pay")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView pay(
            Actor by, @PathVariable long id, @PathVariable long invoice, @RequestBody PayLine wanted) {
        drafting.pay(by, new BatchId(id), wanted.version(), new InvoiceId(invoice), wanted.cash());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/lines/{invoice}/own-check")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView ownCheck(
            Actor by, @PathVariable long id, @PathVariable long invoice, @RequestBody Versioned at) {
        drafting.payAlone(by, new BatchId(id), at.version(), new InvoiceId(invoice));
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/split")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView split(Actor by, @PathVariable long id, @Valid @RequestBody DraftLines wanted) {
        drafting.split(by, new BatchId(id), wanted.version(), wanted.ids());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/join")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView join(Actor by, @PathVariable long id, @Valid @RequestBody DraftLines wanted) {
        drafting.join(by, new BatchId(id), wanted.version(), wanted.ids());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/on-stub")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView show(Actor by, @PathVariable long id, @Valid @RequestBody ShowLines wanted) {
        drafting.show(
                by,
                new BatchId(id),
                wanted.version(),
                wanted.invoices().stream().map(InvoiceId::new).collect(Collectors.toSet()),
                wanted.onStub());
        return views.of(new BatchId(id));
    }

    @GetMapping("/{id}/claims/{claim}/choices")
    ChoicesView choices(Actor by, @PathVariable long id, @PathVariable long claim) {
        by.mayDo(Deed.READ);
        var of = claimRows.of(new BatchId(id)).stream()
                .filter(c -> c.id().value() == claim)
                .findFirst()
                .orElseThrow(() -> leveltally.core.Refusal.notFound(
                        "no-claim", "This payment is not in the batch any more. Look at the batch again."));
        Set<InvoiceId> used = of.lines().stream()
                .filter(line -> line.kind() == leveltally.core.batches.ClaimLine.Kind.CREDIT)
                .flatMap(line -> line.item().stream())
                .collect(Collectors.toSet());
        return new ChoicesView(
                vendors.placesOf(of.vendor()).stream()
                        .map(place -> new RemitToChoice(place.id(), words(place)))
                        .toList(),
                drafting.creditsFor(new BatchId(id), new ClaimId(claim)).stream()
                        .map(credit -> new CreditChoice(
                                credit.id().value(),
                                credit.reference(),
                                credit.date(),
                                credit.open().toString(),
                                used.contains(credit.id())))
                        .toList());
    }

    private static String words(Place place) {
        return place.remitTo().payee() + ", "
                + String.join(", ", place.remitTo().lines());
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
        drafting.useCredits(
                by,
                new BatchId(id),
                wanted.version(),
                new ClaimId(claim),
                wanted.credits().stream().map(InvoiceId::new).toList());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/release-credits")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView releaseCredits(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        drafting.releaseCredits(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    /** What gathering again would change; nothing is changed by looking. */
    @GetMapping("/{id}/gathering")
    GatheringView gathering(Actor by, @PathVariable long id) {
        Gathering difference = drafting.gathering(by, new BatchId(id));
        return new GatheringView(
                difference.added().stream()
                        .map(row -> new GatheredView(
                                row.candidate().invoice().id().value(),
                                row.candidate().invoice().reference(),
                                row.candidate().payee().name(),
                                ((Decision.Taken) row.decision())
                                        .payment()
                                        .cash()
                                        .toString()))
                        .toList(),
                difference.removed().stream()
                        .map(one -> new RemovedView(one.invoice().value(), one.why()))
                        .toList(),
                difference.shown());
    }

    @PostMapping("/{id}/gather-again")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView gatherAgain(Actor by, @PathVariable long id, @Valid @RequestBody GatherAgain wanted) {
        drafting.gatherAgain(by, new BatchId(id), wanted.version(), wanted.shown());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/undo")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView undo(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        drafting.undo(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/redo")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView redo(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        drafting.redo(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    record AboutBatch(
            long version,
            @NotNull @Size(min = 1, max = 80) String name,
            @NotNull @Size(max = 500) String note,
            @NotNull LocalDate ledgerDate,
            @NotNull LocalDate checkDate) {}

    /** Name, note and days of a batch, until its numbers are taken. */
    @PostMapping("/{id}/about")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView about(Actor by, @PathVariable long id, @Valid @RequestBody AboutBatch wanted) {
        drafting.about(
                by,
                new BatchId(id),
                wanted.version(),
                new Drafting.About(wanted.name(), wanted.note(), wanted.ledgerDate(), wanted.checkDate()));
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/withdraw")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView withdraw(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        drafting.withdraw(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }
}
