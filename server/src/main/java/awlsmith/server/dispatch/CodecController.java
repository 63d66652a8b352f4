package awlsmith.server.dispatch;

import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.server.steps.ParamDescription;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** Every codec that can be sent out in, with what can be set: the dialog of sending out follows from these. */
@RestController
class CodecController {
    /** @param containers the usual one first */
    record CodecDescription(
            String id,
            String label,
            String purpose,
            List<String> containers,
            boolean lossless,
            boolean transparency,
            List<ParamDescription> params) {

        static CodecDescription of(Codec codec) {
            return new CodecDescription(
                    codec.id(),
                    codec.label(),
                    codec.purpose(),
                    codec.containers().stream().map(Container::label).toList(),
                    codec.isLossless(),
                    codec.holdsAlpha(),
                    codec.params().stream().map(ParamDescription::of).toList());
        }
    }

    @GetMapping("/api/codecs")
    List<CodecDescription> codecs() {
        return Codecs.all().stream().map(CodecDescription::of).toList();
    }
}
