import { answersAnswer, setAnswerBody, wholeAnswer } from './answers.ts';
import { type Route, okAnswer } from './route.ts';

/** The routes about what visitors sent by forms. */
export const ANSWER_ROUTES = {
  listAnswers: {
    method: 'get',
    path: '/api/sites/:site/answers',
    permission: 'answers',
    summary:
      'What visitors sent by forms, newest first, a hundred at a time; `?form=`, `?state=`, and `?before=` with the id of the last one for older ones',
    answer: answersAnswer,
  },
  exportAnswers: {
    method: 'get',
    path: '/api/sites/:site/forms/:form/answers.csv',
    permission: 'answers',
    exports: 'what visitors have sent',
    summary: 'All answers to a form as CSV, oldest first, with a column for each field',
    sends: 'text/csv; charset=utf-8',
  },
  showAnswer: {
    method: 'get',
    path: '/api/sites/:site/answers/:answer',
    permission: 'answers',
    summary: 'One answer with all that it says',
    answer: wholeAnswer,
  },
  setAnswer: {
    method: 'put',
    path: '/api/sites/:site/answers/:answer',
    permission: 'answers',
    summary: 'Say how far an answer is dealt with, and note something beside it',
    body: setAnswerBody,
    answer: okAnswer,
  },
  deleteAnswer: {
    method: 'delete',
    path: '/api/sites/:site/answers/:answer',
    permission: 'answers',
    summary: 'Delete an answer for good, and take its files out of the library',
    answer: okAnswer,
  },
} as const satisfies Record<string, Route>;
