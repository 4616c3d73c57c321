package leveltally.server.posting;

import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The deed of posting; safe to repeat. */
@RestController
@RequestMapping("/api/batches/{id}/post")
@Needs(Deed.READ)
class PostController {
    private final Posting posting;

    PostController(Posting posting) {
        this.posting = posting;
    }

    record PostedView(int postedNow, long postedInAll, int waiting) {}

    @PostMapping
    @Needs(Deed.POST)
    PostedView post(Actor by, @PathVariable long id) {
        Posting.Outcome outcome = posting.post(by, new BatchId(id));
        return new PostedView(outcome.postedNow(), outcome.postedInAll(), outcome.waiting());
    }
}
