package leveltally.server.exchange;

import java.nio.file.Path;
import java.util.UUID;
import leveltally.core.Refusal;
import leveltally.practicebank.BankDoor;
import leveltally.practicebank.PracticeBank;
import leveltally.server.frame.Settings;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;

/** The bank to practise on, which opens its port when somebody first needs it; only in the demo. */
@Component
public class StandInBank implements DisposableBean {
    private final boolean demo;
    private final PracticeBank bank;
    private @Nullable BankDoor door;

    StandInBank(Settings settings) {
        this.demo = settings.demo();
        this.bank = new PracticeBank(Path.of(settings.practiceBank()));
    }

    public boolean isThere() {
        return demo;
    }

    /** The bank itself, as only the demo meets it; everything else goes through its port. */
    public PracticeBank bank() {
        if (!demo) {
            throw Refusal.conflict("no-practice", "The bank to practise on is there in the demo only.");
        }
        return bank;
    }

    synchronized BankDoor door() {
        if (door == null) {
            door = BankDoor.open(bank(), UUID.randomUUID().toString());
        }
        return door;
    }

    @Override
    public synchronized void destroy() {
        if (door != null) {
            door.close();
        }
    }
}
