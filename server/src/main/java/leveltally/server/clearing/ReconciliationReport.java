package leveltally.server.clearing;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.reports.Report;
import leveltally.server.reports.ReportAsked;
import leveltally.server.reports.ReportSource;
import org.springframework.stereotype.Component;

/** Bank and ledger of a day as a report; as it is now, or as it was signed. */
@Component
class ReconciliationReport implements ReportSource {
    private final Reconciling reconciling;

    ReconciliationReport(Reconciling reconciling) {
        this.reconciling = reconciling;
    }

    @Override
    public String name() {
        return "reconciliation";
    }

    @Override
    public Report of(Actor by, ReportAsked asked) {
        if (asked.signed() != null) {
            return reconciling.kept(by, asked.signed());
        }
        if (asked.account() == null) {
            throw Refusal.invalidField("account-missing", "account", "Say of which bank account.");
        }
        return reconciling
                .on(by, new BankAccountId(asked.account()), asked.day(by.today()))
                .report(List.of("bank and ledger at the end of the day", "not signed"));
    }
}
