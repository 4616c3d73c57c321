package leveltally.server.checks;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Standing;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The register of check numbers. */
@RestController
@RequestMapping("/api/checks")
@Needs(Deed.READ)
class RegisterController {
    private final RegisterRows rows;

    RegisterController(RegisterRows rows) {
        this.rows = rows;
    }

    /** The series there are, in the order of their accounts. */
    @GetMapping("/series")
    List<SeriesView> series(Actor by) {
        by.mayDo(Deed.READ);
        return rows.series();
    }

    @GetMapping
    RegisterView register(
            Actor by,
            @RequestParam long series,
            @RequestParam(required = false) @Nullable String state,
            @RequestParam(required = false) Long below) {
        by.mayDo(Deed.READ);
        Standing narrowed = state == null || state.isEmpty()
                ? null
                : Standing.named(state)
                        .orElseThrow(() -> Refusal.invalidField(
                                "no-state", "state", "No check is ever “" + state + "”. Choose a state shown."));
        return rows.page(new SeriesId(series), narrowed, below, by.today());
    }

    /** The register of a series as CSV. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @RequestParam long series) {
        by.mayDo(Deed.READ);
        return rows.csv(new SeriesId(series));
    }

    @GetMapping("/{id}")
    HistoryView history(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        return rows.history(id, by.today());
    }
}
