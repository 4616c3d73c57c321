package leveltally.server.batches;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import leveltally.server.selection.DueQuestion;
import leveltally.server.selection.WholeRun;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A run in all its ways, side by side. */
@RestController
@RequestMapping("/api/batches/run")
@Needs(Deed.READ)
class RunController {
    private final WholeRun run;
    private final RunMaking making;

    RunController(WholeRun run, RunMaking making) {
        this.run = run;
        this.making = making;
    }

    /** What one way would pay; {@code by} is its method in words. */
    record RunPartView(
            long account,
            String accountName,
            long way,
            String wayName,
            String by,
            LocalDate checkDate,
            int invoices,
            int payments,
            MoneyView toPay) {}

    record WantedPart(
            long account,
            long way,
            int expectedCount,
            @NotNull @Size(max = 40) String expectedToPay) {}

    record MakeRun(
            @NotNull @Size(min = 1, max = 50) String name,
            @NotNull @Size(max = 500) String note,
            @NotNull DueQuestion question,
            @NotNull @Size(max = 50) List<@NotNull @Valid WantedPart> parts,
            @Nullable Long criteria) {}

    record MadeRun(List<Long> batches) {}

    /** Nothing is changed by looking. */
    @GetMapping
    List<RunPartView> look(Actor by, @ParameterObject @ModelAttribute DueQuestion question) {
        by.mayDo(Deed.READ);
        return run.of(question, by.today()).stream()
                .map(part -> new RunPartView(
                        part.from().id().value(),
                        part.from().name(),
                        part.by().id().value(),
                        part.by().name(),
                        part.by().method().words(),
                        part.selection().criteria().checkDate(),
                        part.selection().taken().size(),
                        part.selection().claims().size(),
                        MoneyView.of(part.selection().toPay())))
                .toList();
    }

    @PostMapping
    @Needs(Deed.EDIT_BATCH)
    MadeRun make(Actor by, @Valid @RequestBody MakeRun wanted) {
        List<RunMaking.Part> parts = wanted.parts().stream()
                .map(part -> new RunMaking.Part(part.account(), part.way(), part.expectedCount(), part.expectedToPay()))
                .toList();
        return new MadeRun(
                making
                        .make(
                                by,
                                new RunMaking.Run(
                                        wanted.name(), wanted.note(), wanted.question(), parts, wanted.criteria()))
                        .stream()
                        .map(BatchId::value)
                        .toList());
    }
}
