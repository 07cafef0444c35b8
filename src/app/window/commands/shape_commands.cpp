#include "app/window/commands/shape_commands.h"

#include "app/base/file_dialog.h"
#include "app/base/theme.h"
#include "app/window/workbench.h"
#include "core/format/offset_set_file.h"
#include "core/objects/line.h"
#include "core/operations/derived_lines.h"
#include "core/operations/records.h"
#include "core/operations/rules.h"

namespace erdwerk::app {

ShapeCommands::ShapeCommands(Workbench& work) : CommandSet(work) {
    add();
}

void ShapeCommands::add() {
    const QString shape = stageName(Stage::Shape);
    const auto parts = [this] {
        std::vector<operations::LinePart> out;
        for (const Ref& ref : session_.selection())
            if (session_.document().get<objects::Line>(ref.object) != nullptr)
                out.emplace_back(ref.object, ref.part);
        return out;
    };
    const auto needLines = [parts] { return parts().empty() ? tr("select a 3D line first") : QString(); };
    command(
        "freeze", tr("Freeze"), tr("Rules of the selected points or lines become the heights they give now"),
        theme::icon(QStringLiteral("freeze")), shape, QKeySequence(QStringLiteral("Z")),
        [this, parts] { session_.edit(tr("Freeze"), operations::freeze(session_.results(), parts())); },
        needLines);
    command(
        "free-heights", tr("Free"), tr("Takes the heights of the selected points or lines away"),
        theme::icon(QStringLiteral("free-heights")), shape, QKeySequence(QStringLiteral("F")),
        [this, parts] { session_.edit(tr("Free"), operations::freeHeights(parts())); }, needLines);
    command(
        "loosen", tr("Loosen"), tr("Selected rows and meetings keep their shape and follow nothing any more"),
        theme::icon(QStringLiteral("free-heights")), shape, {},
        [this, parts] {
            std::vector<ObjectId> lines;
            for (const auto& [id, vertex] : parts()) lines.push_back(id);
            session_.edit(tr("Loosen"), operations::loosen(session_.results(), lines));
        },
        needLines);
    command(
        "offset-set-read", tr("Read an offset set…"), tr("Reads rows that were kept in a JSON file"),
        theme::icon(QStringLiteral("import-lines")), shape, {},
        [this] {
            const QString path = fileToOpen(work_.window, tr("Offset set"), tr("Offset sets (*.json)"));
            if (!path.isEmpty()) readOffsetSet(path);
        },
        anOpenProject());
    offer({"freeze", "free-heights"}, isOneOf<objects::Line>);
}

void ShapeCommands::readOffsetSet(const QString& path) {
    auto read = format::readOffsetSet(path.toStdString());
    if (!read) return work_.say(QString::fromStdString(read.error().message()), true);
    session_.edit(tr("Read an offset set"), operations::saveOffsetSet(read->first, read->second));
}

}  // namespace erdwerk::app

#include "moc_shape_commands.cpp"
