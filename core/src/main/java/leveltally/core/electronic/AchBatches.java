package leveltally.core.electronic;

import java.io.IOException;
import java.time.LocalDate;

/** The batches of one file: another begins where the one before is full, or the numbers of its entries begin anew. */
final class AchBatches {
    private final AchWriter writer;
    private final EntryClass entryClass;
    private final LocalDate paysOn;
    private boolean open;
    private int last;
    private long minor;

    AchBatches(AchWriter writer, EntryClass entryClass, LocalDate paysOn) {
        this.writer = writer;
        this.entryClass = entryClass;
        this.paysOn = paysOn;
    }

    void put(AchEntry entry) throws IOException {
        // what balances a batch is an entry as well, with room for no more
        if (open && (entry.sequence() <= last || minor + entry.amount().minor() > AchEntry.MOST_MINOR)) {
            end();
        }
        if (!open) {
            writer.begin(entryClass, paysOn);
            open = true;
            minor = 0;
        }
        writer.entry(entry);
        last = entry.sequence();
        minor += entry.amount().minor();
    }

    void end() throws IOException {
        if (open) {
            writer.end();
            open = false;
        }
    }
}
