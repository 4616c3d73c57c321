package leveltally.server.selection;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.LocalDate;
import java.util.concurrent.Semaphore;
import leveltally.core.selection.Selection;
import leveltally.core.selection.Span;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * Selections of the last minute and the lists made of them, so that a slip or a further page does not compute one again;
 * whoever asks for the summary computes afresh, and a deed never reads from here.
 */
@Component
public class DueLists {
    /** How a screen lists a selection: grouped, all of it or part, narrowed to some days, and sorted. */
    record Shape(Listing.By by, Listing.Showing showing, Span<LocalDate> days, RowOrder order) {}

    private record Asked(DueQuestion question, LocalDate today) {}

    /** A selection and the list last made of it, which holds nothing but references to its rows. */
    private static final class Seen {
        private final Selection selection;
        private volatile @Nullable Shaped last;

        Seen(Selection selection) {
            this.selection = selection;
        }

        Listing listing(Shape shape, LocalDate today) {
            Shaped shaped = last;
            if (shaped == null || !shaped.shape().equals(shape)) {
                shaped = new Shaped(shape, Listing.of(selection, shape, today));
                last = shaped;
            }
            return shaped.listing();
        }
    }

    private record Shaped(Shape shape, Listing listing) {}

    /** However narrow its list, a selection keeps every row it decided on. */
    private final Cache<Asked, Seen> recent;

    /**
     * How many are computed at one moment: a connection is taken by who passes, and memory holds that many of the largest
     * beside those that are kept.
     */
    private final Semaphore computing = new Semaphore(2, true);

    private final Due due;

    @Autowired
    DueLists(Due due) {
        this(due, CandidateRows.MOST + 50_000);
    }

    /** @param mostRows how many rows are kept altogether, shown or not */
    DueLists(Due due, int mostRows) {
        this.due = due;
        this.recent = Caffeine.newBuilder()
                .maximumWeight(mostRows)
                .weigher((Asked asked, Seen seen) -> 1 + seen.selection.rows().size())
                .expireAfterWrite(Duration.ofSeconds(60))
                .build();
    }

    /** The list as it is now. */
    Listing now(DueQuestion question, Shape shape, LocalDate today) {
        Asked asked = new Asked(question, today);
        // what it replaces is not held beside it
        recent.invalidate(asked);
        Seen seen = compute(asked);
        recent.put(asked, seen);
        return seen.listing(shape, today);
    }

    /** The list as somebody saw it within the last minute. */
    Listing lately(DueQuestion question, Shape shape, LocalDate today) {
        return seen(new Asked(question, today)).listing(shape, today);
    }

    /** The selection as somebody saw it within the last minute. */
    public Selection lately(DueQuestion question, LocalDate today) {
        return seen(new Asked(question, today)).selection;
    }

    long rowsKept() {
        recent.cleanUp();
        return recent.policy().eviction().orElseThrow().weightedSize().orElseThrow();
    }

    private Seen seen(Asked asked) {
        return recent.get(asked, this::compute);
    }

    private Seen compute(Asked asked) {
        computing.acquireUninterruptibly();
        try {
            return new Seen(due.select(asked.question(), asked.today()));
        } finally {
            computing.release();
        }
    }
}
