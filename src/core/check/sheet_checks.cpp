// Sheets that cannot be printed as they are.

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/operations/sheets.h"

namespace erdwerk::check {

using document::Document;

void sheets(const derive::Derived& derived, std::vector<Finding>& out) {
    const Document& document = derived.document;
    for (const ObjectId id : document.all<objects::Sheet>()) {
        const auto& sheet = *document.get<objects::Sheet>(id);
        for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
            if (paper::isWithin(sheet.frames[i].room, objects::paperRoom(sheet))) continue;
            Finding f;
            f.kind = kinds::frameOffPaper;
            f.severity = Severity::LookAt;
            f.text = document.nameOf(id) + ": " + operations::frameTitle(document, sheet, i) +
                     " leaves the paper of " + formatExact(sheet.paper[0]) + " x " +
                     formatExact(sheet.paper[1]) + " mm";
            f.objects = {id};
            f.names = {document.nameOf(id)};
            f.fixes.push_back(
                {"Bring its frames onto the paper",
                 [edit = operations::bringFramesOnto(id)](const Document& d) { return edit(d); },
                 {},
                 "bring frames onto the paper"});
            out.push_back(std::move(f));
        }
    }
}

}  // namespace erdwerk::check
