#pragma once
// The tool that runs, if any: it comes to plan and prompt line, and leaves them with its table.

#include <QObject>
#include <memory>
#include <optional>

#include "app/bench/bench.h"

namespace erdwerk::app {

class Tool;
class Workbench;

class ToolInHand : public QObject {
    Q_OBJECT
public:
    explicit ToolInHand(Workbench& work);
    ~ToolInHand() override;

    [[nodiscard]] Tool* tool() const { return tool_.get(); }
    /// Instead of the one before, which keeps what it had finished.
    void take(std::unique_ptr<Tool> tool, const QString& actionId = {});
    void end();
    /// Without keeping anything: what it had begun belongs to a project that is gone.
    void drop();

private:
    void replace(std::unique_ptr<Tool> tool, const QString& actionId);
    void showTable();

    Workbench& work_;
    std::unique_ptr<Tool> tool_;
    std::optional<Bench::Page> pageBefore_;  ///< of the bench, while it shows what the tool is about to do
    bool leaving_ = false;
};

}  // namespace erdwerk::app
