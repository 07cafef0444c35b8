#include "app/window/guide_panel.h"

#include <QFile>
#include <QKeyEvent>
#include <QLabel>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBlock>
#include <QVBoxLayout>

#include "app/base/theme.h"

/// The guide is in a library: its resource is asked for by hand, outside any namespace.
static void initGuide() {
    Q_INIT_RESOURCE(guide);
}

namespace erdwerk::app {

GuidePanel::GuidePanel(QWidget* parent) : QWidget(parent) {
    initGuide();
    setObjectName(QStringLiteral("guide"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(10, 4, 6, 4);
    auto* title = new QLabel(tr("Guide"));
    title->setFont(theme::font(13, true));
    auto* close = new QPushButton(tr("Close"));
    close->setToolTip(tr("F1 or Esc"));
    close->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    connect(close, &QPushButton::clicked, this, &GuidePanel::closed);
    bar->addWidget(title, 1);
    bar->addWidget(close);
    column->addLayout(bar);
    text_ = new QTextBrowser;
    text_->setAccessibleName(tr("Guide"));
    text_->setFrameShape(QFrame::NoFrame);
    text_->document()->setDefaultFont(theme::font(13));
    text_->document()->setDocumentMargin(10);
    QFile file(QStringLiteral(":/guide/user-guide.md"));
    if (file.open(QIODevice::ReadOnly)) text_->setMarkdown(QString::fromUtf8(file.readAll()));
    column->addWidget(text_, 1);
}

void GuidePanel::openAt(Stage stage) {
    for (QTextBlock block = text_->document()->begin(); block.isValid(); block = block.next()) {
        if (block.blockFormat().headingLevel() == 0 || block.text() != stageName(stage)) continue;
        QTextCursor cursor(block);
        text_->setTextCursor(cursor);
        text_->verticalScrollBar()->setValue(text_->verticalScrollBar()->value() + text_->cursorRect().top() -
                                             8);
        break;
    }
    text_->setFocus();
}

void GuidePanel::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape)
        Q_EMIT closed();
    else
        QWidget::keyPressEvent(event);
}

}  // namespace erdwerk::app

#include "moc_guide_panel.cpp"
