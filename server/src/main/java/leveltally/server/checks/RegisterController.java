package leveltally.server.checks;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The register of check numbers. */
@RestController
@RequestMapping("/api/checks")
@Needs(Deed.READ)
class RegisterController {
    private final RegisterRows rows;
    private final NumberHistory history;
    private final Checks checks;

    RegisterController(RegisterRows rows, NumberHistory history, Checks checks) {
        this.checks = checks;
        this.rows = rows;
        this.history = history;
    }

    /** The series there are, in the order of their accounts. */
    @GetMapping("/series")
    List<SeriesView> series(Actor by) {
        by.mayDo(Deed.READ);
        return rows.series();
    }

    /** A page of the numbers, after the one of that id. */
    @GetMapping
    RegisterView register(
            Actor by,
            @ParameterObject @ModelAttribute RegisterAsked asked,
            @RequestParam(required = false) @Nullable Long after) {
        by.mayDo(Deed.READ);
        return rows.page(asked, after, by.today());
    }

    /** What the same numbers come to, all of them. */
    @GetMapping("/totals")
    RegisterTotals totals(Actor by, @ParameterObject @ModelAttribute RegisterAsked asked) {
        by.mayDo(Deed.READ);
        return rows.totals(asked, by.today());
    }

    /** The same numbers as CSV, all of them. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @ParameterObject @ModelAttribute RegisterAsked asked) {
        by.mayDo(Deed.READ);
        return rows.csv(asked, by.today());
    }

    @GetMapping("/{id}")
    HistoryView history(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return history.of(id, by.today());
    }

    record Explained(@NotNull @Size(max = 200) String why) {}

    /** Where the paper of an unaccounted number went. */
    @PostMapping("/{id}/explain")
    @Needs(Deed.EXPLAIN_NUMBER)
    HistoryView explain(Actor by, @PathVariable long id, @Valid @RequestBody Explained wanted) {
        checks.explain(by, new CheckNumberId(id), wanted.why());
        return history.of(id, by.today());
    }
}
