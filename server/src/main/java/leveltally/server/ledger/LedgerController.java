package leveltally.server.ledger;

import java.time.YearMonth;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.Needs;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Entries and balances. */
@RestController
@RequestMapping("/api")
@Needs(Deed.READ)
class LedgerController {
    private final LedgerRows rows;

    LedgerController(LedgerRows rows) {
        this.rows = rows;
    }

    /** The entries of a month as CSV, line by line. */
    @GetMapping(value = "/ledger/{month}/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @PathVariable String month) {
        by.mayDo(Deed.READ);
        return rows.csv(parsed(month));
    }

    /** Entries of a month, newest first, a page at a time. */
    @GetMapping("/ledger/{month}/entries")
    EntriesView entries(Actor by, @PathVariable String month, @RequestParam(required = false) String after) {
        by.mayDo(Deed.READ);
        return rows.entries(parsed(month), after);
    }

    /** Balances at the start of a month, its movements, and the balances at its end. */
    @GetMapping("/ledger/{month}/trial-balance")
    TrialBalanceView trialBalance(Actor by, @PathVariable String month) {
        by.mayDo(Deed.READ);
        return rows.trialBalance(parsed(month));
    }

    static YearMonth parsed(String month) {
        if (!month.matches("\\d{4}-(0[1-9]|1[0-2])")) {
            throw Refusal.notFound("no-period", "There is no period “" + month + "”. Choose one from the list.");
        }
        return YearMonth.parse(month);
    }
}
