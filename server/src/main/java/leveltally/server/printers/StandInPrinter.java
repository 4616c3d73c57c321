package leveltally.server.printers;

import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.printers.Handed;
import leveltally.core.printers.PrinterKind;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * A printer that lays its sheets into a tray in the database, and can jam, smear or run out of paper when asked to. It
 * keeps what came out, not the pages: what is seen of the tray afterwards is drawn anew, marked.
 */
@Component
public class StandInPrinter implements Printer {
    /** What it can do wrong: one sheet unreadable; one torn and the rest blank; the rest blank. */
    public enum Fault {
        SMEAR,
        JAM,
        OUT_OF_PAPER
    }

    private final JdbcClient jdbc;

    StandInPrinter(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    private record Armed(Fault fault, int sheet) {}

    @Override
    public PrinterKind kind() {
        return PrinterKind.STAND_IN;
    }

    @Override
    @Transactional
    public Handed print(CompanyPrinter on, PrintJob job) {
        if (job.plain()) {
            job.documents().forEach(id -> lay(id, "PRINTED"));
            return Handed.accepted("", "");
        }
        Armed armed = jdbc.sql("SELECT fault, at_sheet FROM stand_in_fault WHERE bank_account_id = :account")
                .param("account", job.account().value())
                .query((r, n) -> new Armed(Fault.valueOf(r.getString("fault")), r.getInt("at_sheet")))
                .optional()
                .orElse(null);
        for (int i = 0; i < job.documents().size(); i++) {
            lay(job.documents().get(i), outcome(armed, i + 1));
        }
        jdbc.sql("DELETE FROM stand_in_fault WHERE bank_account_id = :account")
                .param("account", job.account().value())
                .update();
        return Handed.accepted("", "");
    }

    private void lay(long document, String outcome) {
        jdbc.sql("INSERT INTO tray_sheet (id, document_id, outcome) VALUES (:id, :id, :outcome)")
                .param("id", document)
                .param("outcome", outcome)
                .update();
    }

    private static String outcome(@org.jspecify.annotations.Nullable Armed armed, int sheet) {
        if (armed == null || sheet < armed.sheet()) {
            return "PRINTED";
        }
        boolean there = sheet == armed.sheet();
        return switch (armed.fault()) {
            case SMEAR -> there ? "SMEARED" : "PRINTED";
            case JAM -> there ? "TORN" : "BLANK";
            case OUT_OF_PAPER -> "BLANK";
        };
    }

    /** Makes the next job go wrong at a sheet. */
    @Transactional
    public void arm(BankAccountId account, Fault fault, int sheet) {
        if (sheet < 1) {
            throw Refusal.invalidField("sheet", "sheet", "Sheets count from 1.");
        }
        jdbc.sql("REPLACE INTO stand_in_fault (bank_account_id, fault, at_sheet) VALUES (:account, :fault, :sheet)")
                .param("account", account.value())
                .param("fault", fault.name())
                .param("sheet", sheet)
                .update();
    }
}
