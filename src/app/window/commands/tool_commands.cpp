#include "app/window/commands/tool_commands.h"

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/window/tool_in_hand.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

ToolCommands::ToolCommands(Workbench& work, ToolInHand& inHand) : CommandSet(work), inHand_(inHand) {
    add();
}

void ToolCommands::add() {
    for (const auto& entry : tools::rack()) {
        QString id;
        if (const auto* tool = std::get_if<tools::ToolDeclaration>(&entry.entry)) {
            id = tool->id;
            const QString menu = entry.stage ? stageName(*entry.stage) : tr("Edit");
            actions_.add({id, tool->text, tool->help, theme::icon(tool->icon), menu, QKeySequence(tool->key),
                          [this, make = tool->make, id] { inHand_.take(make(session_), id); },
                          [this, why = tool->whyNot] { return why(session_); }});
            if (tool->suits != nullptr) actions_.offerFor(id, tool->suits);
        } else {
            id = std::get<QString>(entry.entry);
        }
        if (entry.stage)
            actions_.placeOnRack(id, *entry.stage, entry.section);
        else
            actions_.placeOnEveryRack(id, entry.section);
    }
}

}  // namespace erdwerk::app

#include "moc_tool_commands.cpp"
