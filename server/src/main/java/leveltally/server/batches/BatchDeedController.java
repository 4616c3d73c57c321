package leveltally.server.batches;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Gathering;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Decision;
import leveltally.server.frame.Needs;
import leveltally.server.selection.DueQuestion;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Batches made, described, gathered again, taken a step back, withdrawn. */
@RestController
@RequestMapping("/api/batches")
@Needs(Deed.READ)
class BatchDeedController {
    private final Making making;
    private final GatheringAgain gathering;
    private final Steps steps;
    private final AboutBatch aboutBatch;
    private final Withdrawing withdrawing;
    private final BatchViews views;

    BatchDeedController(
            Making making,
            GatheringAgain gathering,
            Steps steps,
            AboutBatch aboutBatch,
            Withdrawing withdrawing,
            BatchViews views) {
        this.making = making;
        this.gathering = gathering;
        this.steps = steps;
        this.aboutBatch = aboutBatch;
        this.withdrawing = withdrawing;
        this.views = views;
    }

    record MakeBatch(
            @NotNull @Size(min = 1, max = 80) String name,
            @NotNull @Size(max = 500) String note,
            int expectedCount,
            @NotNull @Size(max = 40) String expectedToPay,
            @NotNull DueQuestion question,
            @Nullable Long criteria) {}

    record MadeView(long id) {}

    record GatherAgain(
            long version, @NotNull @Size(max = 64) String shown) {}

    record GatheredView(long invoice, String reference, String payee, String open) {}

    record RemovedView(long invoice, String why) {}

    /** {@code shown} is handed back with the deed, so that just this difference is applied. */
    record GatheringView(List<GatheredView> added, List<RemovedView> removed, String shown) {}

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
        return new MadeView(making.make(by, batch).value());
    }

    /** What gathering again would change; nothing is changed by looking. */
    @GetMapping("/{id}/gathering")
    GatheringView gathering(Actor by, @PathVariable long id) {
        Gathering difference = gathering.gathering(by, new BatchId(id));
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
        gathering.gatherAgain(by, new BatchId(id), wanted.version(), wanted.shown());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/undo")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView undo(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        steps.undo(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/redo")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView redo(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        steps.redo(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }

    record AboutRequest(
            long version,
            @NotNull @Size(min = 1, max = 80) String name,
            @NotNull @Size(max = 500) String note,
            @NotNull LocalDate ledgerDate,
            @NotNull LocalDate checkDate) {}

    /** Name, note and days of a batch, until its numbers are taken. */
    @PostMapping("/{id}/about")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView about(Actor by, @PathVariable long id, @Valid @RequestBody AboutRequest wanted) {
        aboutBatch.about(
                by,
                new BatchId(id),
                wanted.version(),
                new About(wanted.name(), wanted.note(), wanted.ledgerDate(), wanted.checkDate()));
        return views.of(new BatchId(id));
    }

    @PostMapping("/{id}/withdraw")
    @Needs(Deed.EDIT_BATCH)
    BatchController.BatchView withdraw(Actor by, @PathVariable long id, @RequestBody Versioned at) {
        withdrawing.withdraw(by, new BatchId(id), at.version());
        return views.of(new BatchId(id));
    }
}
