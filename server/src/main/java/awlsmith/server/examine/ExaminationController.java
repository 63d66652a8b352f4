package awlsmith.server.examine;

import awlsmith.core.condition.Curves;
import awlsmith.core.condition.Dropped;
import awlsmith.core.condition.Fade;
import awlsmith.server.clips.ClipView;
import java.util.List;
import java.util.UUID;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Examinations over HTTP. */
@RestController
@RequestMapping("/api/clips/{clip}/examination")
class ExaminationController {
    private static final int MOST_POINTS = 4000;

    private final Examinations examinations;

    ExaminationController(Examinations examinations) {
        this.examinations = examinations;
    }

    /**
     * What was measured along time. Where there are more frames than points, each point tells the largest value of its
     * frames.
     *
     * @param frames of the clip
     */
    record CurvesView(
            int frames,
            float[] light,
            float[] change,
            float[] noise,
            float[] shake,
            float[] combed,
            List<Long> cuts,
            List<Long> repeats,
            List<Long> flashes,
            List<Fade> fades,
            List<Dropped> dropped) {}

    @PostMapping
    ClipView again(@PathVariable UUID clip) {
        return examinations.again(clip);
    }

    @DeleteMapping
    ClipView stop(@PathVariable UUID clip) {
        return examinations.stop(clip);
    }

    @GetMapping("/curves")
    CurvesView curves(@PathVariable UUID clip, @RequestParam(defaultValue = "1200") int points) {
        Curves curves = examinations.curves(clip);
        int most = Math.clamp(points, 1, MOST_POINTS);
        return new CurvesView(
                curves.light().length,
                reduced(curves.light(), most),
                reduced(curves.change(), most),
                reduced(curves.noise(), most),
                reduced(curves.shake(), most),
                reduced(curves.combed(), most),
                curves.cuts(),
                curves.repeats(),
                curves.flashes(),
                curves.fades(),
                curves.dropped());
    }

    static float[] reduced(float[] values, int points) {
        if (values.length <= points) {
            return values;
        }
        float[] out = new float[points];
        for (int i = 0; i < points; i++) {
            int from = (int) ((long) values.length * i / points);
            int end = (int) ((long) values.length * (i + 1) / points);
            out[i] = values[from];
            for (int k = from; k < end; k++) {
                out[i] = Math.max(out[i], values[k]);
            }
        }
        return out;
    }
}
