import { createApp } from 'vue'
import '../hurry/hurry.scss'
import PanelPage from './PanelPage.vue'
import './panel.scss'

createApp(PanelPage).mount('#panel')
