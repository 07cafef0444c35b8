#pragma once
// The label-style editor: fields, prefix, decimals, above or below, with a live example.

#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QTableWidget>

#include "app/base/session.h"

namespace erdwerk::app {

class LabelStyleDialog : public QDialog {
    Q_OBJECT
public:
    LabelStyleDialog(Session& session, QWidget* parent);
    [[nodiscard]] QTableWidget* fields() { return fields_; }

private:
    void load();
    void store();
    void change(const annotate::LabelStyle& next);
    void move(int by);
    void showExample();
    [[nodiscard]] annotate::LabelStyle style() const;

    Session& session_;
    std::vector<ObjectId> styles_;
    QComboBox* choice_;
    QTableWidget* fields_;
    QLabel* example_;
    annotate::LabelKind kind_ = annotate::LabelKind::Segment;
    bool filling_ = false;
};

}  // namespace erdwerk::app
