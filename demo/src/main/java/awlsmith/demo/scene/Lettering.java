package awlsmith.demo.scene;

import java.awt.BasicStroke;
import java.awt.Graphics2D;
import java.awt.geom.AffineTransform;
import java.awt.geom.Path2D;
import java.util.Map;

/**
 * Sign-painter's capitals drawn from strokes of our own, so that the scene looks the same on machines with no fonts. A
 * letter stands in a box 4 wide and 6 high, y upward.
 */
final class Lettering {
    private static final Map<Character, String> STROKES = Map.ofEntries(
            Map.entry('A', "M0,0 L2,6 L4,0 M.8,2.1 L3.2,2.1"),
            Map.entry(
                    'B',
                    "M0,0 L0,6 L2.3,6 Q3.9,6 3.9,4.6 Q3.9,3.2 2.3,3.2 L0,3.2 M2.3,3.2 Q4.1,3.2 4.1,1.6 Q4.1,0 2.3,0 L0,0"),
            Map.entry('C', "M4,4.8 Q3.6,6 2.1,6 Q0,6 0,3 Q0,0 2.1,0 Q3.6,0 4,1.2"),
            Map.entry('D', "M0,0 L0,6 L1.7,6 Q4,6 4,3 Q4,0 1.7,0 L0,0"),
            Map.entry('E', "M3.7,6 L0,6 L0,0 L3.7,0 M0,3.1 L3,3.1"),
            Map.entry('F', "M3.7,6 L0,6 L0,0 M0,3.1 L3,3.1"),
            Map.entry('G', "M4,4.8 Q3.6,6 2.1,6 Q0,6 0,3 Q0,0 2.1,0 Q4,0 4,1.6 L4,2.8 L2.4,2.8"),
            Map.entry('H', "M0,0 L0,6 M4,0 L4,6 M0,3.1 L4,3.1"),
            Map.entry('I', "M2,0 L2,6"),
            Map.entry('K', "M0,0 L0,6 M4,6 L0,2.6 M1.4,3.8 L4,0"),
            Map.entry('L', "M0,6 L0,0 L3.6,0"),
            Map.entry('M', "M0,0 L0,6 L2,2.2 L4,6 L4,0"),
            Map.entry('N', "M0,0 L0,6 L4,0 L4,6"),
            Map.entry('O', "M2,0 Q0,0 0,3 Q0,6 2,6 Q4,6 4,3 Q4,0 2,0"),
            Map.entry('P', "M0,0 L0,6 L2.3,6 Q4,6 4,4.4 Q4,2.8 2.3,2.8 L0,2.8"),
            Map.entry('R', "M0,0 L0,6 L2.3,6 Q4,6 4,4.4 Q4,2.9 2.3,2.9 L0,2.9 M2.2,2.9 L4,0"),
            Map.entry('S', "M3.8,4.9 Q3.4,6 2,6 Q.2,6 .2,4.5 Q.2,3.3 2,3 Q4,2.7 4,1.5 Q4,0 2,0 Q.4,0 0,1.2"),
            Map.entry('T', "M0,6 L4,6 M2,6 L2,0"),
            Map.entry('U', "M0,6 L0,2 Q0,0 2,0 Q4,0 4,2 L4,6"),
            Map.entry('V', "M0,6 L2,0 L4,6"),
            Map.entry('W', "M0,6 L1,0 L2,4 L3,0 L4,6"),
            Map.entry('X', "M0,0 L4,6 M0,6 L4,0"),
            Map.entry('Y', "M0,6 L2,3 L4,6 M2,3 L2,0"),
            Map.entry('o', "M2,0 Q.6,0 .6,1.9 Q.6,3.8 2,3.8 Q3.4,3.8 3.4,1.9 Q3.4,0 2,0"),
            Map.entry('0', "M2,0 Q.2,0 .2,3 Q.2,6 2,6 Q3.8,6 3.8,3 Q3.8,0 2,0"),
            Map.entry('1', "M.9,4.8 L2.2,6 L2.2,0"),
            Map.entry('2', "M.2,4.6 Q.4,6 2,6 Q3.8,6 3.8,4.4 Q3.8,3.2 2,1.8 L.2,0 L3.9,0"),
            Map.entry('3', "M.3,5 Q.8,6 2,6 Q3.7,6 3.7,4.6 Q3.7,3.2 1.7,3.2 Q4,3.2 4,1.6 Q4,0 2,0 Q.5,0 .1,1.1"),
            Map.entry('4', "M3,0 L3,6 L0,1.7 L4,1.7"),
            Map.entry('7', "M.2,6 L3.9,6 L1.5,0"),
            Map.entry(
                    '8',
                    "M2,3.2 Q.4,3.2 .4,4.6 Q.4,6 2,6 Q3.6,6 3.6,4.6 Q3.6,3.2 2,3.2 Q0,3.2 0,1.6 Q0,0 2,0 Q4,0 4,1.6 Q4,3.2 2,3.2"),
            Map.entry('9', "M3.8,3.6 Q3.4,2.6 2,2.6 Q.2,2.6 .2,4.3 Q.2,6 2,6 Q3.8,6 3.8,3.6 Q3.8,0 1.4,0"),
            Map.entry('.', "M2,.1 L2,0"),
            Map.entry(' ', ""));

    private static final double ADVANCE = 5.9;

    private Lettering() {}

    /** Width of a line of letters of this height. */
    static double width(String text, double height) {
        return (text.length() * ADVANCE - 1.9) * height / 6;
    }

    /** Paints a line in the current colour; x, y is its lower left corner, y downward as on the canvas. */
    static void paint(Graphics2D g, String text, double x, double y, double height, double weight) {
        double scale = height / 6;
        g.setStroke(new BasicStroke((float) (weight), BasicStroke.CAP_BUTT, BasicStroke.JOIN_ROUND));
        for (int i = 0; i < text.length(); i++) {
            var place = AffineTransform.getTranslateInstance(x + i * ADVANCE * scale, y);
            place.scale(scale, -scale);
            g.draw(place.createTransformedShape(letter(text.charAt(i))));
        }
    }

    private static Path2D letter(char c) {
        String strokes = STROKES.get(c);
        if (strokes == null) {
            throw new IllegalArgumentException("no strokes for '" + c + "'");
        }
        var path = new Path2D.Double();
        double[] corner = new double[2];
        boolean bend = false;
        for (String word : strokes.split(" ")) {
            if (word.isEmpty()) {
                continue;
            }
            char kind = word.charAt(0);
            boolean marked = Character.isLetter(kind);
            String[] xy = (marked ? word.substring(1) : word).split(",");
            double px = Double.parseDouble(xy[0]);
            double py = Double.parseDouble(xy[1]);
            if (bend) {
                path.quadTo(corner[0], corner[1], px, py);
                bend = false;
            } else if (kind == 'M') {
                path.moveTo(px, py);
            } else if (kind == 'Q') {
                corner[0] = px;
                corner[1] = py;
                bend = true;
            } else {
                path.lineTo(px, py);
            }
        }
        return path;
    }
}
