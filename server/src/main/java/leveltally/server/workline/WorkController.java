package leveltally.server.workline;

import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** How much waits at each station, and the search over everything. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class WorkController {
    private final WorkRows work;
    private final Search search;

    WorkController(WorkRows work, Search search) {
        this.work = work;
        this.search = search;
    }

    @GetMapping("/work")
    WorkView work(Actor by) {
        by.mayDo(Deed.READ);
        return work.of(by.today());
    }

    /** Vendors, invoices, checks and batches that hold the text. */
    @GetMapping("/search")
    List<FoundView> search(Actor by, @RequestParam String text) {
        by.mayDo(Deed.READ);
        return search.holding(text);
    }
}
