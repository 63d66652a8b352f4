package awlsmith.media;

import awlsmith.core.picture.Rational;
import java.util.ArrayList;
import java.util.List;

/** Chapters in FFmpeg's open form for metadata. */
final class ChapterList {
    private static final Rational MICROSECOND = new Rational(1, 1_000_000);

    private ChapterList() {}

    /** The text of such a file; titles go beside it, as it would want them escaped. */
    static String of(List<MediaInfo.Chapter> chapters) {
        var list = new StringBuilder(";FFMETADATA1\n");
        for (MediaInfo.Chapter chapter : chapters) {
            list.append("[CHAPTER]\nTIMEBASE=1/1000000\nSTART=")
                    .append(chapter.start().ticks(MICROSECOND))
                    .append("\nEND=")
                    .append(chapter.end().ticks(MICROSECOND))
                    .append('\n');
        }
        return list.toString();
    }

    /** Words that give the chapters of what is written their titles. */
    static List<String> titles(List<MediaInfo.Chapter> chapters) {
        var words = new ArrayList<String>();
        for (int n = 0; n < chapters.size(); n++) {
            words.addAll(List.of("-metadata:c:" + n, "title=" + chapters.get(n).title()));
        }
        return words;
    }
}
