package leveltally.server.people;

import jakarta.validation.Valid;
import java.util.Map;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** How one looks at lists. */
@RestController
@RequestMapping("/api/lists")
@Needs(Deed.READ)
class KeptListController {
    private final KeptLists lists;

    KeptListController(KeptLists lists) {
        this.lists = lists;
    }

    @GetMapping
    Map<String, Arrangement> mine(Actor by) {
        return lists.of(by);
    }

    @PostMapping("/{list}")
    @Needs(Deed.READ)
    void keep(Actor by, @PathVariable String list, @Valid @RequestBody Arrangement arrangement) {
        lists.keep(by, list, arrangement);
    }
}
