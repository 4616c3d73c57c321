package leveltally.server.printing;

import leveltally.core.batches.BatchId;
import leveltally.core.people.Actor;
import org.springframework.stereotype.Service;

/**
 * Onto paper: the numbers are recorded, then the run is marked as handed over, then it is. Each is a transaction of its own,
 * so that a crash between two of them loses nothing and prints nothing twice.
 */
@Service
public class Printing {
    private final Numbering numbering;
    private final HandingOver handingOver;

    Printing(Numbering numbering, HandingOver handingOver) {
        this.numbering = numbering;
        this.handingOver = handingOver;
    }

    /**
     * Takes numbers for what has none and prints them.
     *
     * @param inTray the first number on the paper in the tray
     * @param reason needed when it is ahead of the next number
     */
    public Numbered print(Actor by, BatchId batch, long turnSerial, long inTray, String reason) {
        Numbered numbered = numbering.number(by, batch, turnSerial, inTray, reason);
        send(by, numbered.run());
        return numbered;
    }

    /** Prints sheets that stayed blank, and damaged ones that may be, on their own numbers. */
    public long printOnOwnNumbers(Actor by, BatchId batch) {
        long run = numbering.onOwnNumbers(by, batch);
        send(by, run);
        return run;
    }

    /** Hands over a run whose numbers were recorded before a break; safe to repeat. */
    public void send(Actor by, long run) {
        if (handingOver.markSent(by, run)) {
            handingOver.handOver(run);
        }
    }
}
