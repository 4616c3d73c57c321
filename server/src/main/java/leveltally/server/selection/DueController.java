package leveltally.server.selection;

import java.util.List;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.selection.Selection;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import leveltally.server.ledger.BankHolidays;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What is due, taken and left out. */
@RestController
@RequestMapping("/api/due")
@Needs(Deed.READ)
class DueController {
    private final DueLists lists;
    private final BankHolidays holidays;

    DueController(DueLists lists, BankHolidays holidays) {
        this.lists = lists;
        this.holidays = holidays;
    }

    @GetMapping
    DueView list(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @ParameterObject @ModelAttribute HowListed how) {
        by.mayDo(Deed.READ);
        Listing list = lists.now(question, how.shape(), by.today());
        return DueViews.of(list, by.today(), holidays.of(question.bankAccount()));
    }

    /** A page of the list: rows {@code from}, {@code from} + 1, and so on. */
    @GetMapping("/rows")
    List<DueView.DueRowView> rows(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @ParameterObject @ModelAttribute HowListed how,
            @RequestParam int from) {
        by.mayDo(Deed.READ);
        return DueViews.rows(lists.lately(question, how.shape(), by.today()), Math.max(0, from), by.today());
    }

    /** What the selected rows come to; the browser adds nothing up. {@code all} for the whole list. */
    @GetMapping("/total")
    DueView.TotalView total(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @ParameterObject @ModelAttribute HowListed how,
            @RequestParam String selected) {
        by.mayDo(Deed.READ);
        return DueViews.total(lists.lately(question, how.shape(), by.today()), selected);
    }

    /** The list as CSV, row by row; only the selected ones where some are named. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(
            Actor by,
            @ParameterObject @ModelAttribute DueQuestion question,
            @ParameterObject @ModelAttribute HowListed how,
            @RequestParam(required = false) @Nullable String selected) {
        by.mayDo(Deed.READ);
        Listing list = lists.now(question, how.shape(), by.today());
        List<Selection.Row> rows = DueViews.selected(list, selected == null ? "all" : selected);
        return Csv.answer("due.csv", DueViews.HEADS, rows.stream().map(DueViews::cells));
    }
}
