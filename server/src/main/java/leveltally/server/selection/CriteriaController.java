package leveltally.server.selection;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
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

/** Criteria kept under a name. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class CriteriaController {
    private final SavedCriteria saved;

    CriteriaController(SavedCriteria saved) {
        this.saved = saved;
    }

    record SavedView(
            long id,
            String name,
            String owner,
            boolean mine,
            boolean shared,
            DueQuestion question,
            @Nullable Long lastBatch,
            @Nullable Instant lastRunAt,
            @Nullable String lastOutcome) {}

    record SaveCriteria(
            @NotNull @Size(min = 1, max = 60) String name,
            boolean shared,
            @NotNull DueQuestion question) {}

    @GetMapping("/criteria")
    List<SavedView> savedCriteria(Actor by) {
        return saved.list(by).stream()
                .map(s -> new SavedView(
                        s.id(),
                        s.name(),
                        s.owner(),
                        s.mine(),
                        s.shared(),
                        s.question(),
                        s.lastBatch(),
                        s.lastRunAt(),
                        s.lastOutcome()))
                .toList();
    }

    @PostMapping("/criteria")
    @Needs(Deed.EDIT_BATCH)
    List<SavedView> save(Actor by, @Valid @RequestBody SaveCriteria wanted) {
        saved.save(by, wanted.name(), wanted.shared(), wanted.question());
        return savedCriteria(by);
    }

    @PostMapping("/criteria/{id}/remove")
    @Needs(Deed.EDIT_BATCH)
    List<SavedView> remove(Actor by, @PathVariable long id) {
        saved.remove(by, id);
        return savedCriteria(by);
    }
}
