#pragma once
// The commands of sheets and their frames.

#include <memory>
#include <vector>

#include "app/window/command_set.h"

namespace erdwerk::objects {
struct FrameKind;
}

namespace erdwerk::app {

class SheetBatch;

class SheetCommands : public CommandSet {
    Q_OBJECT
public:
    explicit SheetCommands(Workbench& work);
    ~SheetCommands() override;

    /// Into the project, as title block or picture; false after a message.
    bool takeArtwork(const QString& path);
    /// Writes sheets while the window goes on; says when it is done.
    void writeSheets(const QString& path, std::vector<ObjectId> sheets);
    [[nodiscard]] SheetBatch* batch() { return batch_.get(); }

private:
    void add();
    void frameCommands();
    void connectPage();
    void openSheet();
    void newSheet();
    void sheetsAlong();
    void addFrame(const objects::FrameKind& kind);
    void showFrameInPlan(std::size_t frame);
    void writeTitleBlock();
    void exportSheet();

    std::unique_ptr<SheetBatch> batch_;
};

}  // namespace erdwerk::app
