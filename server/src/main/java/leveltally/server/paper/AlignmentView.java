package leveltally.server.paper;

import java.math.BigDecimal;
import leveltally.core.paper.Alignment;

/** A printer's alignment in millimetres. */
record AlignmentView(BigDecimal right, BigDecimal down) {
    static AlignmentView of(Alignment alignment) {
        return new AlignmentView(BigDecimal.valueOf(alignment.right(), 1), BigDecimal.valueOf(alignment.down(), 1));
    }
}
