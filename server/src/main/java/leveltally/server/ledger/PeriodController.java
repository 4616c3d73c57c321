package leveltally.server.ledger;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.YearMonth;
import java.util.List;
import leveltally.core.ledger.Period;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** The months of the ledger. */
@RestController
@RequestMapping("/api/periods")
@Needs(Deed.READ)
class PeriodController {
    private final Periods periods;
    private final LedgerRows rows;

    PeriodController(Periods periods, LedgerRows rows) {
        this.periods = periods;
        this.rows = rows;
    }

    /** The month that can be opened next. */
    record NextMonth(String month, String name, boolean mayOpen) {}

    record Closing(boolean closing) {}

    record UnlockReason(@NotNull @Size(max = 300) String reason) {}

    @GetMapping
    List<PeriodView> periods(Actor by) {
        by.mayDo(Deed.READ);
        return rows.periods();
    }

    @GetMapping("/next")
    NextMonth next(Actor by) {
        by.mayDo(Deed.READ);
        YearMonth next = periods.opened().next(YearMonth.from(by.today()));
        return new NextMonth(
                next.toString(), new Period(next, false).inWords(), Deed.OPEN_PERIOD.allowedTo(by.roles()));
    }

    @PostMapping("/{month}/open")
    @Needs(Deed.OPEN_PERIOD)
    void open(Actor by, @PathVariable String month) {
        periods.open(by, LedgerController.parsed(month));
    }

    /** The payments that keep a month from being locked. */
    @GetMapping("/{month}/in-the-way")
    InTheWay inTheWay(Actor by, @PathVariable String month) {
        by.mayDo(Deed.READ);
        return rows.inTheWay(LedgerController.parsed(month));
    }

    @PostMapping("/{month}/lock")
    @Needs(Deed.LOCK_PERIOD)
    void lock(Actor by, @PathVariable String month) {
        periods.lock(by, LedgerController.parsed(month));
    }

    /** Whether clerks begin nothing new in it. */
    @PostMapping("/{month}/closing")
    @Needs(Deed.LOCK_PERIOD)
    void close(Actor by, @PathVariable String month, @Valid @RequestBody Closing wanted) {
        periods.close(by, LedgerController.parsed(month), wanted.closing());
    }

    @PostMapping("/{month}/unlock")
    @Needs(Deed.LOCK_PERIOD)
    void unlock(Actor by, @PathVariable String month, @Valid @RequestBody UnlockReason reason) {
        periods.unlock(by, LedgerController.parsed(month), reason.reason());
    }
}
