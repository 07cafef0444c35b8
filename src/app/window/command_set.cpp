#include "app/window/command_set.h"

#include "app/tools/all_tools.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

CommandSet::CommandSet(Workbench& work) : work_(work), session_(work.session), actions_(work.actions) {}

void CommandSet::command(const char* id, const QString& text, const QString& help, const QIcon& icon,
                         const QString& menu, const QKeySequence& key, std::function<void()> run,
                         std::function<QString()> whyNot) {
    actions_.add({QString::fromLatin1(id), text, help, icon, menu, key, std::move(run), std::move(whyNot)});
}

void CommandSet::offer(std::initializer_list<const char*> ids,
                       const std::function<bool(const objects::Object&)>& suits) {
    for (const char* id : ids) actions_.offerFor(QString::fromLatin1(id), suits);
}

std::function<QString()> CommandSet::anOpenProject() const {
    return [this] { return tools::anOpenProject(session_); };
}

}  // namespace erdwerk::app

#include "moc_command_set.cpp"
