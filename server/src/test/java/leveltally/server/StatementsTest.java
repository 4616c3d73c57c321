package leveltally.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import leveltally.core.batches.BatchId;
import leveltally.core.invoices.InvoiceId;
import leveltally.server.batches.Drafting;
import org.junit.jupiter.api.Test;

/**
 * The number of statements a request needs does not grow with the rows it answers. All answers compared are larger than
 * the response buffer, because the session is looked up once more when an answer is sent in pieces.
 */
class StatementsTest {
    private static final Http INES = Http.signedIn("ines");

    private static long selects() throws SQLException {
        try (Connection root = App.DATABASE.root("leveltally");
                ResultSet row = root.createStatement().executeQuery("SHOW GLOBAL STATUS LIKE 'Com_select'")) {
            row.next();
            return row.getLong(2);
        }
    }

    /** Statements of one request, after a first one has warmed whatever keeps things. */
    private static long statements(String path) throws SQLException {
        INES.get(path);
        assertThat(INES.get(path).status()).isEqualTo(200);
        long before = selects();
        INES.get(path);
        return selects() - before;
    }

    @Test
    void due() throws SQLException {
        long account = App.operations().value();
        String due = "/api/due?account=" + account + "&checkDate=2026-11-13&dueBy=";
        assertThat(statements(due + "2026-12-31")).isEqualTo(statements(due + "2026-11-13"));
    }

    private static InvoiceId[] invoices(int count) {
        String[] vendors = {"Bollard Foundry", "Pelorus Charts", "Ironwrack Chain", "Plover Packaging", "Coaming Timber"
        };
        InvoiceId[] many = new InvoiceId[count];
        for (int i = 0; i < many.length; i++) {
            many[i] = App.invoice(vendors[i % vendors.length], "5.00");
        }
        return many;
    }

    @Test
    void batch() throws SQLException {
        BatchId small = App.draft(invoices(40));
        BatchId large = App.draft(invoices(90));
        assertThat(statements("/api/batches/" + large.value())).isEqualTo(statements("/api/batches/" + small.value()));
        assertThat(statements("/api/batches/" + large.value() + "/level"))
                .isEqualTo(statements("/api/batches/" + small.value() + "/level"));
        App.bean(Drafting.class).withdraw(App.ines(), small, App.version(small));
        App.bean(Drafting.class).withdraw(App.ines(), large, App.version(large));
    }

    @Test
    void register() throws SQLException {
        String register = "/api/checks?account=" + App.operations().value();
        assertThat(statements(register)).isEqualTo(statements(register + "&below=41270"));
    }
}
