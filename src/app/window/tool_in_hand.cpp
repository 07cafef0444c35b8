#include "app/window/tool_in_hand.h"

#include "app/bench/bench.h"
#include "app/bench/tables_page.h"
#include "app/panels/rack.h"
#include "app/plan/plan_view.h"
#include "app/plan/tool.h"
#include "app/window/prompt_line.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

ToolInHand::ToolInHand(Workbench& work) : work_(work) {
    connect(work_.prompt, &PromptLine::completed, this, [this] {
        if (tool_) tool_->complete();
    });
    connect(work_.prompt, &PromptLine::left, this, &ToolInHand::end);
    // What a tool had begun belongs to the project before.
    connect(&work_.session, &Session::opened, this, &ToolInHand::drop);
}

ToolInHand::~ToolInHand() {
    work_.plan->setTool(nullptr);
}

void ToolInHand::take(std::unique_ptr<Tool> tool, const QString& actionId) {
    // What the tool before had finished is kept, unless it ends by itself.
    if (tool_ && !leaving_) {
        leaving_ = true;
        tool_->leave();
        leaving_ = false;
    }
    // Tools work in the plan.
    if (tool) work_.showSheets(false);
    replace(std::move(tool), actionId);
}

void ToolInHand::drop() {
    replace(nullptr, {});
}

void ToolInHand::replace(std::unique_ptr<Tool> tool, const QString& actionId) {
    work_.plan->setTool(nullptr);
    work_.prompt->setTool(nullptr);
    // The tool may be ending itself: it goes when it has returned.
    if (tool_) tool_.release()->deleteLater();
    tool_ = std::move(tool);
    work_.rack->setActive(actionId);
    showTable();
    if (!tool_) return;
    connect(tool_.get(), &Tool::tableChanged, this, &ToolInHand::showTable);
    connect(tool_.get(), &Tool::finished, this, [this, t = tool_.get()] {
        if (tool_.get() == t) end();
    });
    connect(tool_.get(), &Tool::made, &work_, &Workbench::showMade);
    work_.prompt->setTool(tool_.get());
    work_.plan->setTool(tool_.get());
    work_.plan->setFocus();
}

void ToolInHand::showTable() {
    auto table = tool_ ? tool_->table() : std::nullopt;
    if (table && !pageBefore_) {
        pageBefore_ = work_.bench->page();
        work_.bench->open(Bench::Page::Tables);
    }
    const bool ended = !table && pageBefore_;
    if (table || ended) work_.tables->setToolTable(std::move(table));
    if (!ended) return;
    // Back to where the person was, unless another page was opened meanwhile.
    if (work_.bench->page() == Bench::Page::Tables) work_.bench->open(*pageBefore_);
    pageBefore_.reset();
}

void ToolInHand::end() {
    take(nullptr);
}

}  // namespace erdwerk::app

#include "moc_tool_in_hand.cpp"
