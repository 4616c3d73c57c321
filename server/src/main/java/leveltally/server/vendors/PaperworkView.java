package leveltally.server.vendors;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import org.jspecify.annotations.Nullable;

/** A vendor's wishes; {@code words} say what differs from the usual. */
record PaperworkView(
        String advice,
        String email,
        String checks,
        @Nullable String dates,
        List<String> words) {
    static PaperworkView of(Paperwork papers) {
        List<String> words = new ArrayList<>();
        if (papers.advice().isMailed()) {
            words.add("Advice " + papers.advice().words() + ", to " + papers.email());
        }
        if (papers.checks() != Delivery.MAIL) {
            words.add("Checks " + papers.checks().words());
        }
        if (papers.dates() != null) {
            words.add("Dates like " + papers.dates().words());
        }
        return new PaperworkView(
                papers.advice().name(),
                papers.email(),
                papers.checks().name(),
                papers.dates() == null ? null : papers.dates().name(),
                words);
    }
}
