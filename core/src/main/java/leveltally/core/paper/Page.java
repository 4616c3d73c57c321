package leveltally.core.paper;

import java.util.List;

/** One page as positioned boxes; whoever draws it, on paper or on a screen, draws these. */
public record Page(double width, double height, List<Box> boxes) {
    public Page {
        boxes = List.copyOf(boxes);
    }

    /** The same, drawn beside its place on purpose. */
    public Page moved(Alignment by) {
        double x = by.pointsRight();
        double y = by.pointsDown();
        return x == 0 && y == 0
                ? this
                : new Page(
                        width,
                        height,
                        boxes.stream().map(box -> box.moved(x, y)).toList());
    }
}
