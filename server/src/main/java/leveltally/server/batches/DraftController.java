package leveltally.server.batches;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.LineTotals;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import leveltally.server.selection.EntryRanges;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The edits of a draft's lines: each saves one edit and answers with the batch as it is then. */
@RestController
@RequestMapping("/api/batches")
@Needs(Deed.READ)
class DraftController {
    private final Drafting drafting;
    private final BatchViews views;

    DraftController(Drafting drafting, BatchViews views) {
        this.drafting = drafting;
        this.views = views;
    }

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

    record LinesTotal(int count, String settles, String discount, String pays) {}

    /** What the selected lines come to; the browser adds nothing up. */
    @GetMapping("/{id}/total")
    LinesTotal total(Actor by, @PathVariable long id, @RequestParam String selected) {
        by.mayDo(Deed.READ);
        Set<InvoiceId> wanted = EntryRanges.read(selected);
        LineTotals totals = views.totals(new BatchId(id), wanted);
        return new LinesTotal(
                totals.count(),
                totals.settles().toString(),
                totals.discount().toString(),
                totals.cash().toString());
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
}
